<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/**
 * Recognises one cause of value in one pair of cells. It is asked about the cells as they stand, then without their differences of form.
 */
interface CauseRule
{
    public function id(): CauseId;

    /** @return array<string, string|int>|null the facts of the cause; null when this is not why the cells differ: a rule never guesses */
    public function facts(CellPair $pair): ?array;
}
