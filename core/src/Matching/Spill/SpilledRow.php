<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** A row of a partition, taken out of its lists where it has to be looked at by itself. */
final readonly class SpilledRow
{
    /** @param string $rest what is not compared; the key where nothing else is left */
    public function __construct(public string $key, public string $body, public string $rest, public int $line) {}
}
