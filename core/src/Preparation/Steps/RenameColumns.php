<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\RowByRow;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Preparation\UnusableStep;

final class RenameColumns extends RowByRow
{
    /** @param list<array{from: string, to: string}> $names */
    public function __construct(private readonly array $names) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns);
        $renamed = $columns;
        foreach ($this->names as ['from' => $from, 'to' => $to]) {
            $renamed[$places->at($from)] = $to;
        }
        foreach (array_count_values($renamed) as $name => $times) {
            if ($times > 1 && (array_count_values($columns)[$name] ?? 0) < $times) {
                throw UnusableStep::withTakenName((string) $name);
            }
        }

        return array_values($renamed);
    }

    public function sentence(): string
    {
        return 'Call '.Words::listed(array_map(static fn(array $name): string => "{$name['from']} {$name['to']}", $this->names));
    }

    protected function bind(array $columns, StepContext $context): \Closure
    {
        return static fn(RowCursor $row): array => $row->cells;
    }
}
