<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Steps;

use NineTally\Core\Shape\ColumnIndex;
use NineTally\Core\Shape\RowByRow;
use NineTally\Core\Shape\RowCursor;
use NineTally\Core\Shape\StepContext;

final class DropColumns extends RowByRow
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
        return 'Drop '.Words::listed($this->chosen);
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $dropped = array_flip(array_keys(array_intersect($columns, $this->chosen)));

        return static fn(RowCursor $row): array => array_values(array_diff_key($row->cells, $dropped));
    }
}
