<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

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
        $readings = array_map(static fn(string $column): Reading => $context->reading($column, Kind::Text), $columns);

        return static function (RowCursor $row) use ($readings): ?array {
            foreach ($row->cells as $place => $cell) {
                if ($cell !== '' && ! $readings[$place]->isBlank($cell)) {
                    return $row->cells;
                }
            }

            return null;
        };
    }
}
