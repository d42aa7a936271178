<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** The last rule: no other one knew why, and nothing is guessed. */
final readonly class NoneFound implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::None;
    }

    public function explain(CellPair $pair): Cause
    {
        return new Cause([$this->id()]);
    }
}
