<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Value\Blankness;

/** The source has a value, the target none. Spaces and invisible characters alone are no value. */
final readonly class Blanked implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::Blanked;
    }

    public function explain(CellPair $pair): ?Cause
    {
        return $pair->isBlankInTarget() && ! Blankness::showsNothing($pair->source) ? new Cause([$this->id()]) : null;
    }
}
