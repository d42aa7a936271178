<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

enum PolicyId: string
{
    /** Every row with the key, on either side, is repeated, and none is compared. */
    case SetAside = 'set-aside';
    case KeepFirst = 'keep-first';
    case KeepLast = 'keep-last';
    case KeepHighest = 'keep-highest';
    case KeepLowest = 'keep-lowest';

    /** Rows that are equal in every column become one; others with the key are set aside. */
    case CollapseCopies = 'collapse-copies';

    /** The first with the first, the second with the second; the surplus is missing or extra. */
    case PairInOrder = 'pair-in-order';

    public function needsColumn(): bool
    {
        return $this === self::KeepHighest || $this === self::KeepLowest;
    }
}
