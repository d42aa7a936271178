<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** How the way to a database is encrypted. */
final readonly class Encryption
{
    /**
     * @param  string  $mode  preferred: where it is offered; required; verified: held against the authority too
     * @param  string|null  $authority  certificates that the one of the database is held against (PEM)
     */
    public function __construct(public string $mode = 'preferred', public ?string $authority = null) {}
}
