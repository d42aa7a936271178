<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** One number is the other, negated. */
final readonly class Sign implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::Sign;
    }

    public function facts(CellPair $pair): ?array
    {
        $numbers = $pair->numbers();

        return $numbers !== null && $numbers[0]->isNegationOf($numbers[1]) ? [] : null;
    }
}
