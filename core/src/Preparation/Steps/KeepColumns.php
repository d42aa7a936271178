<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;

/** Keeps some columns, in the order in which they are named. */
final class KeepColumns extends RowByRow
{
    /** @param list<string> $chosen */
    public function __construct(private readonly array $chosen) {}

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all($this->chosen);

        return $this->chosen;
    }

    public function sentence(): string
    {
        return 'Keep '.Words::listed($this->chosen).' in this order';
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = ColumnIndex::of($columns)->all($this->chosen);

        return static function (RowCursor $row) use ($places): array {
            $cells = $row->cells;
            $kept = [];
            foreach ($places as $place) {
                $kept[] = $cells[$place];
            }

            return $kept;
        };
    }
}
