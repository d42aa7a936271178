<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/** A cause of form of values that are read as something: two writings of one number, one date, one yes or no. */
interface ReadForm
{
    public function id(): CauseId;

    /** Whether both cells are read, and as the same. */
    public function joins(CellPair $pair): bool;
}
