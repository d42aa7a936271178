<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/**
 * Why a row is in its class, where it is known: why a missing or extra one has no counterpart, and what is to be known of one that was not
 * kept.
 */
enum RowReason: string
{
    case FewerRows = 'fewer-rows';
    case IdleBridge = 'idle-bridge';

    /** Of a repeated row: the policy keeps none of its key, or rows of its key that differ are no copies. */
    case SetAside = 'set-aside';

    /** Of a repeated row: another row of its key and side was kept. */
    case NotKept = 'not-kept';

    /** Of a repeated row: a person chose another row of its key and side. */
    case NotChosen = 'not-chosen';

    /** Of a row that was not kept: no column decides between it and the one that was kept. */
    case Undecided = 'undecided';

    /** A step left the row with its key out. Facts: "step", its number, and "does", what it does in words. */
    case LeftOut = 'left-out';
}
