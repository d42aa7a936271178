<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Conditions;

use NineTally\Core\Shape\Cells;
use NineTally\Core\Shape\ColumnPlaces;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Shape\UnusableStep;

/** What is asked of a row. */
interface Condition
{
    /**
     * @return \Closure(Cells): bool
     *
     * @throws UnusableStep
     */
    public function bind(ColumnPlaces $places, StepContext $context): \Closure;

    /**
     * Whether the columns are there.
     *
     * @throws UnusableStep
     */
    public function mustFit(ColumnPlaces $places): void;

    public function sentence(): string;
}
