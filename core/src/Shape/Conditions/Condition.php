<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Conditions;

use NineTally\Core\Shape\ColumnIndex;
use NineTally\Core\Shape\RowCursor;
use NineTally\Core\Shape\StepContext;
use NineTally\Core\Shape\UnusableStep;

/** What is asked of a row. */
interface Condition
{
    /**
     * @return \Closure(RowCursor): bool
     *
     * @throws UnusableStep
     */
    public function bind(ColumnIndex $places, StepContext $context): \Closure;

    /**
     * Whether the columns are there.
     *
     * @throws UnusableStep
     */
    public function mustFit(ColumnIndex $places): void;

    public function sentence(): string;
}
