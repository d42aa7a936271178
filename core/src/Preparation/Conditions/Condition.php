<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Conditions;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;

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
