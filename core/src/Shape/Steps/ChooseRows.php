<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Steps;

use NineTally\Core\Shape\ColumnIndex;
use NineTally\Core\Shape\Conditions\Condition;
use NineTally\Core\Shape\RowByRow;
use NineTally\Core\Shape\RowCursor;
use NineTally\Core\Shape\StepContext;

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
