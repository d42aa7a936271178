<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Profile\ColumnConstraint;
use NineTally\Core\Totals\ControlTotal;

/**
 * What a plan says of single columns, whether they are paired or not.
 *
 * @phpstan-import-type DemandDocument from ColumnConstraint
 */
final readonly class ColumnRules
{
    /**
     * @param  array<string, DemandDocument>  $demands  by target column
     * @param  list<string>  $defaultForgives  causes of form that a pair forgives when it is made
     * @param  array{source: list<string>, target: list<string>}  $sensitive  columns whose values are shown to those alone who may see them
     * @param  list<ControlTotal>  $totals  figures of columns that both sides must have in common
     */
    public function __construct(
        public array $demands = [],
        public array $defaultForgives = [],
        public array $sensitive = ['source' => [], 'target' => []],
        public array $totals = [],
    ) {}
}
