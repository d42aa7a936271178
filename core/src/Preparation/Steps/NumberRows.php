<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\SortKey;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;

/** Numbers rows within their group, in the order of the delivery or of a column. Ranked, equal values have one number. */
final readonly class NumberRows implements Step
{
    /** @param list<string> $within */
    public function __construct(private string $into, private array $within, private ?SortKey $order, private bool $ranks) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns);
        $places->all([...$this->within, ...($this->order === null ? [] : [$this->order->column])]);
        $places->mustBeFree([$this->into]);

        return [...$columns, $this->into];
    }

    public function sentence(): string
    {
        return ($this->ranks ? 'Rank' : 'Number').
            ' rows'.
            ($this->within === [] ? '' : ' within '.Words::listed($this->within)).
            ($this->order === null ? '' : " by {$this->order->column}".($this->order->isDescending ? ', highest first' : '')).
            " into {$this->into}";
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $places = ColumnIndex::of($columns);
        $by = $this->order === null ? null : $places->at($this->order->column);
        $order = $this->order?->values($context);
        $figures = $context->figures;

        return (new Grouping($context->folder))->run(Words::counted($rows, $figures), $places->all($this->within), function (
            array $group,
        ) use ($by, $order, $figures): iterable {
            $sorted = $by === null || $order === null || $this->order === null ? $group : $this->order->sorted($group, $by, $order);
            $rank = 0;
            $last = null;
            foreach ($sorted as $nth => [$number, $packedPlace, $cells]) {
                $value = $by === null ? null : $order?->rank($cells[$by]);
                // Equal values have one number however they are written; those that cannot be ranked share the last.
                $rank = $this->ranks && $nth > 0 && ($value === $last || $order?->compare($value, $last) === 0) ? $rank : $nth + 1;
                $last = $value;
                $figures->out++;
                $figures->alter($this->into);
                yield [$number, $packedPlace, [...$cells, (string) $rank]];
            }
        });
    }
}
