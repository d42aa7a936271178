<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Conditions\Condition;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;

/** Keeps or leaves out the rows that meet a condition. */
final class ChooseRows extends RowByRow
{
    public function __construct(private readonly bool $keeps, private readonly Condition $condition) {}

    public function columns(array $columns): array
    {
        $this->condition->mustFit(ColumnIndex::of($columns));

        return $columns;
    }

    public function sentence(): string
    {
        return ($this->keeps ? 'Keep rows where ' : 'Leave out rows where ').$this->condition->sentence();
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $meets = $this->condition->bind(ColumnIndex::of($columns), $context);
        $keeps = $this->keeps;

        return static fn(RowCursor $row): ?array => $meets($row) === $keeps ? $row->cells : null;
    }
}
