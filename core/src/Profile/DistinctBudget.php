<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

/** How many distinct values may be held, for one column and for all columns of a side together. */
final class DistinctBudget
{
    public const OF_A_COLUMN = 100_000;

    /** What PHP needs for an entry of an array beside its bytes. */
    private const ENTRY_BYTES = 72;

    public function __construct(private int $bytesLeft = 64 * 1024 * 1024) {}

    public function allows(int $ofColumn, int $valueBytes): bool
    {
        $this->bytesLeft -= $valueBytes + self::ENTRY_BYTES;

        return $ofColumn <= self::OF_A_COLUMN && $this->bytesLeft > 0;
    }
}
