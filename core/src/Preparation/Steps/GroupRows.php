<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\Formula\Functions;
use NineTally\Core\Preparation\Grouping;
use NineTally\Core\Preparation\Step;
use NineTally\Core\Preparation\StepContext;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** One row for each group, with totals of its rows. */
final readonly class GroupRows implements Step
{
    public const NO_NUMBER = 'no number';

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
        $readings = [];
        foreach (array_column($this->totals, 'column') as $column) {
            $readings[$column] = $context->reading($column, Kind::Number);
        }

        return (new Grouping($context->folder))->run(Words::counted($rows, $figures), $by, function (array $group) use (
            $places,
            $by,
            $context,
            $figures,
            $readings,
        ): iterable {
            [$number, $packedPlace, $first] = $group[0];
            foreach (array_slice($group, 1) as [, $of]) {
                $context->condense($packedPlace, $of);
            }
            $figures->out++;
            $cells = array_map(static fn(int $place): string => $first[$place], $by);
            foreach ($this->totals as $total) {
                $cells[] = isset($total['column'])
                    ? $this->total(
                        $total['total'],
                        array_map(static fn(array $row): string => $row[2][$places->at($total['column'])], $group),
                        $readings[$total['column']],
                        $context,
                    )
                    : (string) count($group);
            }

            return [[$number, $packedPlace, $cells]];
        });
    }

    /** @param list<string> $values */
    private function total(string $total, array $values, Reading $reading, StepContext $context): string
    {
        $given = array_values(array_filter($values, static fn(string $value): bool => ! $reading->isBlank($value)));
        if ($total === 'count') {
            return (string) count($given);
        }
        if ($total === 'distinct') {
            return (string) count(array_unique($given));
        }
        if ($total === 'first' || $total === 'last') {
            return $given === [] ? '' : $given[$total === 'first' ? 0 : count($given) - 1];
        }
        /** @var \Brick\Math\BigDecimal|null $sum */
        $sum = null;
        foreach ($given as $value) {
            $number = $reading->number($value)?->toBigDecimal();
            if ($number === null) {
                $context->figures->note(self::NO_NUMBER, $value);

                continue;
            }
            $sum = match (true) {
                $sum === null => $number,
                $total === 'sum' => $sum->plus($number),
                $total === 'lowest' => $number->compareTo($sum) < 0 ? $number : $sum,
                default => $number->compareTo($sum) > 0 ? $number : $sum,
            };
        }

        // As read-number and formulas write them: one form for one number.
        return $sum === null ? '' : Functions::written($sum);
    }
}
