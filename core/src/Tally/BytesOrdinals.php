<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\Unmatched;
use NineTally\Core\Row\KeyTuple;

/** Tells apart rows that have no key and equal bytes: the first, the second and so on. Holds 16 bytes for each distinct one. */
final class BytesOrdinals
{
    /** @var array<string, int> */
    private array $seen = [];

    public function next(Unmatched $unmatched): int
    {
        $bytes = $unmatched->refused->digest ?? implode(KeyTuple::SEPARATOR, ($unmatched->source ?? $unmatched->target)->cells ?? []);
        $hash = hash('xxh128', "{$unmatched->side?->value}\0{$unmatched->class->value}\0{$bytes}", true);

        return $this->seen[$hash] = ($this->seen[$hash] ?? 0) + 1;
    }
}
