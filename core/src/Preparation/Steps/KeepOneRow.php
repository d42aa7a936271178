<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\SortKey;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;

/** Keeps one row of each key; the others are left out. */
final readonly class KeepOneRow implements Step
{
    /**
     * @param  list<string>  $by
     * @param  SortKey|null  $order  the first in this order is kept; null: the first or last of the delivery
     */
    public function __construct(private array $by, private ?SortKey $order, private bool $keepsLast = false) {}

    public function columns(array $columns): array
    {
        ColumnIndex::of($columns)->all([...$this->by, ...($this->order === null ? [] : [$this->order->column])]);

        return $columns;
    }

    public function sentence(): string
    {
        $which = match (true) {
            $this->order !== null => ($this->order->isDescending ? 'with the highest ' : 'with the lowest ').$this->order->column,
            default => $this->keepsLast ? 'that comes last' : 'that comes first',
        };

        return 'Keep one row for each '.Words::listed($this->by).", the one {$which}";
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $places = ColumnIndex::of($columns);
        $by = $this->order === null ? null : $places->at($this->order->column);
        $order = $this->order?->values($context);

        return (new Grouping($context->folder))->run(Words::counted($rows, $context->figures), $places->all($this->by), function (
            array $group,
        ) use ($by, $order, $context): iterable {
            $sorted = $by === null || $order === null || $this->order === null ? $group : $this->order->sorted($group, $by, $order);
            $kept = $this->keepsLast && $by === null ? $sorted[count($sorted) - 1] : $sorted[0];
            foreach ($group as $row) {
                if ($row[0] !== $kept[0]) {
                    $context->leaveOut($row[1], $row[2], $kept[1]);
                }
            }
            $context->figures->out++;

            return [$kept];
        });
    }
}
