<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;

final class LeaveOutColumns extends RowByRow
{
    /** @param list<string> $chosen */
    public function __construct(private readonly array $chosen) {}

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all($this->chosen);

        return array_values(array_filter($columns, fn(string $name): bool => ! in_array($name, $this->chosen, true)));
    }

    public function sentence(): string
    {
        return 'Leave out '.(count($this->chosen) === 1 ? 'the column ' : 'the columns ').Words::listed($this->chosen);
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $leftOut = array_flip(array_keys(array_intersect($columns, $this->chosen)));

        return static fn(RowCursor $row): array => array_values(array_diff_key($row->cells, $leftOut));
    }
}
