<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Blankness;

/** The target has a value, the source none. Spaces and invisible characters alone are no value. */
final readonly class Filled implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::Filled;
    }

    public function explain(CellPair $pair): ?Cause
    {
        return $pair->isBlankInSource() && ! Blankness::showsNothing($pair->target) ? new Cause([$this->id()]) : null;
    }
}
