<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;

/** One row for each group, with totals of its rows. */
final readonly class GroupRows implements Step
{
    /**
     * @param  list<string>  $by
     * @param  list<array{total: string, column?: string, into: string}>  $totals
     */
    public function __construct(private array $by, private array $totals) {}

    public function columns(array $columns): array
    {
        $places = ColumnIndex::of($columns);
        $places->all([...$this->by, ...array_column($this->totals, 'column')]);
        ColumnIndex::of($this->by)->mustBeFree(array_column($this->totals, 'into'));

        return [...$this->by, ...array_column($this->totals, 'into')];
    }

    public function sentence(): string
    {
        $totals = array_map(
            static fn(array $total): string => $total['total'] === 'count' ? 'count' : "{$total['total']} of ".($total['column'] ?? ''),
            $this->totals,
        );

        return 'One row for each '.Words::listed($this->by).($totals === [] ? '' : ' with '.Words::listed($totals));
    }

    public function run(iterable $rows, array $columns, StepContext $context): \Generator
    {
        $places = ColumnIndex::of($columns);
        $by = $places->all($this->by);
        $figures = $context->figures;
        $made = [];
        foreach ($this->totals as $nth => $total) {
            $made[$nth] = new TotalOfRows($total['total'], $context->reading($total['column'] ?? '', Kind::Number), $figures);
        }

        return (new Grouping($context->folder))->run(Words::counted($rows, $figures), $by, function (array $group) use (
            $places,
            $by,
            $context,
            $figures,
            $made,
        ): iterable {
            [$number, $packedPlace, $first] = $group[0];
            foreach (array_slice($group, 1) as [, $of]) {
                $context->condense($packedPlace, $of);
            }
            $figures->out++;
            $cells = array_map(static fn(int $place): string => $first[$place], $by);
            foreach ($this->totals as $nth => $total) {
                $cells[] = isset($total['column'])
                    ? $made[$nth]->of(array_map(static fn(array $row): string => $row[2][$places->at($total['column'])], $group))
                    : (string) count($group);
            }

            return [[$number, $packedPlace, $cells]];
        });
    }
}
