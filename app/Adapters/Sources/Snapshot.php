<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** What was drawn, as a file. */
final readonly class Snapshot
{
    /** @param string|null $name that it had where it comes from; null where it was no file there */
    public function __construct(public int $bytes, public ?string $name = null) {}
}
