<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Row\Side;

/** Counts the rows of both sides by class while they pass. */
final class RowTally
{
    /** @var array<string, array<string, int>> side => class => rows */
    private array $rows = ['source' => [], 'target' => []];

    /** @var array<string, int> side => keys that repeat there and do not exist on the other side: a loss hides there */
    private array $repeatedOnOneSide = ['source' => 0, 'target' => 0];

    public function count(Side $side, RowClass $class): void
    {
        $this->rows[$side->value][$class->value] = $this->of($side, $class) + 1;
    }

    /** @param array{source: int, target: int} $rowsOfKey */
    public function countRepeatedOnOneSideOnly(Side $side, RowClass $class, int $ordinal, array $rowsOfKey): void
    {
        if ($class === RowClass::Repeated && $ordinal === 1 && $rowsOfKey[$side->other()->value] === 0) {
            $this->repeatedOnOneSide[$side->value]++;
        }
    }

    public function of(Side $side, RowClass $class): int
    {
        return $this->rows[$side->value][$class->value] ?? 0;
    }

    public function keysRepeatedOnOneSideOnly(Side $side): int
    {
        return $this->repeatedOnOneSide[$side->value];
    }
}
