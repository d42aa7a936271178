<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/**
 * How much the memos of all columns together may hold beyond what each has for itself: a column of twelve thousand days needs more than a
 * thousand columns could have. An entry takes about 200 bytes, and four times as many where it waits for its column with evidence.
 */
final class MemoRoom
{
    /** Of each column, whatever the others have. */
    public const OWN = 2_048;

    private const WITH_EVIDENCE = 4;

    public function __construct(private int $left = 65_536) {}

    /** @return int how much of the room it takes to hold one more; 0 where there is none left */
    public function take(CellResult $result): int
    {
        $taken = $result->evidence === [] ? 1 : self::WITH_EVIDENCE;
        if ($taken > $this->left) {
            return 0;
        }
        $this->left -= $taken;

        return $taken;
    }

    public function giveBack(int $taken): void
    {
        $this->left += $taken;
    }
}
