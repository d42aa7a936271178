<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/**
 * How much the memos of all columns together may hold beyond what each has for itself: a column of twelve thousand days needs more than a
 * thousand columns could have. An entry takes about 200 bytes.
 */
final class MemoRoom
{
    /** Of each column, whatever the others have. */
    public const OWN = 2_048;

    public function __construct(private int $left = 65_536) {}

    /** @return bool whether one more may be held */
    public function take(): bool
    {
        if ($this->left === 0) {
            return false;
        }
        $this->left--;

        return true;
    }

    public function giveBack(int $entries): void
    {
        $this->left += $entries;
    }
}
