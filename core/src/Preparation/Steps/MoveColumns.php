<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;

/** Puts some columns first; the others follow in their order. */
final class MoveColumns extends RowByRow
{
    /** @param list<string> $first */
    public function __construct(private readonly array $first) {}

    public function columns(array $columns): array
    {
        return array_map(static fn(int $place): string => $columns[$place], $this->places($columns));
    }

    public function sentence(): string
    {
        return 'Put '.Words::listed($this->first).' first';
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        $places = $this->places($columns);

        return static function (RowCursor $row) use ($places): array {
            $cells = $row->cells;
            $moved = [];
            foreach ($places as $place) {
                $moved[] = $cells[$place];
            }

            return $moved;
        };
    }

    /**
     * @param  list<string>  $columns
     * @return list<int>
     */
    private function places(array $columns): array
    {
        $first = ColumnIndex::of($columns)->all($this->first);

        return [...$first, ...array_values(array_diff(array_keys($columns), $first))];
    }
}
