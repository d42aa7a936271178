<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** What merging a slice of the findings left beside their lines: those of all slices together are what merging all at once leaves. */
final readonly class MergedSlice
{
    /** @param int $findings rows that did not agree */
    public function __construct(
        public PatternCounter $patterns,
        public ValueCounts $values,
        public RowSlices $rows,
        public int $findings,
    ) {}
}
