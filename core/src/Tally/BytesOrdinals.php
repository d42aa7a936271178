<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\Spill\FindingEntry;

/** Tells apart rows that have no key and equal bytes: the first, the second and so on. Holds 16 bytes for each distinct one. */
final class BytesOrdinals
{
    /** @var array<string, int> */
    private array $seen = [];

    public function next(FindingEntry $entry): int
    {
        $bytes = $entry->refused['digest'] ?? $entry->source ?? $entry->target ?? '';
        $hash = hash('xxh128', "{$entry->side?->value}\0{$entry->class->value}\0{$bytes}", true);

        return $this->seen[$hash] = ($this->seen[$hash] ?? 0) + 1;
    }
}
