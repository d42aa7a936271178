<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** One number is the other times 10, 100, 1000 and so on: pounds against pence, metres against millimetres. */
final readonly class Scale implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::Scale;
    }

    public function facts(CellPair $pair): ?array
    {
        $numbers = $pair->numbers();
        $power = $numbers === null ? null : $numbers[1]->powerOfTenOver($numbers[0]);

        return $power === null || $power === 0 ? null : ['factor' => '10^'.$power];
    }
}
