<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** Day and month stand in each other's place. */
final readonly class DayMonth implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::DayMonth;
    }

    public function facts(CellPair $pair): ?array
    {
        $moments = $pair->moments();
        if ($moments === null) {
            return null;
        }
        [$source, $target] = $moments;
        [$year, $month, $day] = $source->date();

        return [$year, $day, $month] === $target->date() &&
            $day !== $month &&
            $source->seconds === $target->seconds &&
            $source->fraction === $target->fraction
            ? []
            : null;
    }
}
