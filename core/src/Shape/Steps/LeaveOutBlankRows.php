<?php

declare(strict_types=1);

namespace NineTally\Core\Shape\Steps;

use NineTally\Core\Shape\Cells;
use NineTally\Core\Shape\RowByRow;
use NineTally\Core\Shape\StepContext;

final class LeaveOutBlankRows extends RowByRow
{
    public function columns(array $columns): array
    {
        return $columns;
    }

    public function sentence(): string
    {
        return 'Leave out rows with nothing in any column';
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        return static fn(Cells $row): ?array => implode('', $row->cells) === '' ? null : $row->cells;
    }
}
