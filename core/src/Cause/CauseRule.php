<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/** Recognises one cause in one pair of cells that are not equal as bytes. */
interface CauseRule
{
    public function id(): CauseId;

    /** @return Cause|null null when this is not why the cells differ: a rule never guesses */
    public function explain(CellPair $pair): ?Cause;
}
