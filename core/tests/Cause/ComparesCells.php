<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\ColumnDecision;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** What ColumnComparisonTest and DeclaredRulesTest have in common. */
trait ComparesCells
{
    private function cause(string $source, string $target, Kind $kind = Kind::Text): Cause
    {
        $column = $this->column($kind);

        return $column->classify($source, $target)->cause ?? $column->resolve($source, $target, '', new ColumnDecision([]));
    }

    private function column(Kind $kind): ColumnComparison
    {
        return new ColumnComparison(ColumnPair::between('a', 'b', $kind), new Reading($kind), new Reading($kind), new CauseCatalogue);
    }
}
