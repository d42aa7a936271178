<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The control totals of a plan on two sides: what takes them while rows are read and matched, and what comes of it.
 */
final readonly class PlanTotals
{
    /** @var Sides<list<TotalColumns>> by total */
    private Sides $columns;

    /**
     * @param  Sides<Columns>  $names
     * @param  Sides<list<int>>  $keyPlaces
     */
    public function __construct(private Plan $plan, Sides $names, private Sides $keyPlaces, FormCombination $forms)
    {
        $this->columns = Sides::each(
            static fn(Side $side): array => array_map(
                static fn(ControlTotal $total): TotalColumns => new TotalColumns($total, $side, $plan, $names->of($side), $forms),
                $plan->columnRules->totals,
            ),
        );
    }

    /**
     * The columns that only totals look at: no column pair compares them with their partner, nor do they meet in the key.
     *
     * @return list<array{source: string, target: string}> each pair once
     */
    public static function uncomparedPairs(Plan $plan): array
    {
        $pairs = array_merge([], ...array_map(static fn(ControlTotal $total): array => $total->pairs(), $plan->columnRules->totals));
        $compared = array_map(
            static fn(ColumnPair|KeyColumn $pair): array => ['source' => $pair->source, 'target' => $pair->target],
            [...$plan->key, ...$plan->columnPairs],
        );

        return array_values(
            array_unique(array_filter($pairs, static fn(array $pair): bool => ! in_array($pair, $compared, true)), SORT_REGULAR),
        );
    }

    public function ofSide(Side $side): SideTotals
    {
        return new SideTotals($this->columns->of($side), $this->keyPlaces->of($side));
    }

    /**
     * @param  list<ColumnComparison>  $comparisons  by column pair
     * @return TotalShares|null null where nothing is totalled
     */
    public function shares(ShareCounts $shares, array $comparisons): ?TotalShares
    {
        $totals = $this->plan->columnRules->totals;

        return $totals === []
            ? null
            : new TotalShares(
                $this->columns,
                array_map($this->comparedPairs(...), array_keys($totals)),
                $comparisons,
                $shares,
                $this->keyPlaces->source,
            );
    }

    /**
     * Whether rows of equal bytes have to be looked at all the same: the cells that totals look at are among those bytes, so they leave all
     * totals alike where both sides read them alike.
     */
    public function needAllRows(): bool
    {
        [$source, $target] = $this->columns->both();
        foreach ($source as $number => $columns) {
            if (! $columns->readsLike($target[$number])) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  Sides<list<ScanResult>>  $scans  in the order of each side
     * @param  string  $folder  where the runs of distinct values are
     * @param  DeliveredTotals|null  $delivered  of totals over delivered rows; null where nobody has them: they are as prepared then
     * @return list<TotalReport>
     */
    public function reports(Sides $scans, ShareCounts $shares, string $folder, ?DeliveredTotals $delivered = null): array
    {
        if ($this->plan->columnRules->totals === []) {
            return [];
        }
        $groups = Sides::each(fn(Side $side): array => $this->ofSide($side)->together(
            array_map(static fn(ScanResult $result): array => $result->totals, $scans->of($side)),
        ))->named();

        foreach ($this->plan->columnRules->totals as $number => $total) {
            foreach ($total->over === Basis::Delivered ? Side::cases() : [] as $side) {
                $before = $delivered?->ofSide($total, $number, $side, $this->columns->of($side)[$number], $shares);
                $groups[$side->value][$number] = $before ?? $groups[$side->value][$number];
            }
        }
        $runs = static fn(Side $side, int $number): array => array_merge(
            ...array_map(static fn(ScanResult $result): array => $result->runsOf($number, $folder), $scans->of($side)),
        );

        return array_map(
            fn(int $number): TotalReport => TotalReport::of(
                $this->columns->source[$number],
                $this->columns->target[$number],
                $groups['source'][$number],
                $groups['target'][$number],
                $shares->of($number),
                $this->columns->source[$number]->total->measure === Measure::Distinct
                    ? DistinctValues::of($runs(Side::Source, $number), $runs(Side::Target, $number))
                    : [],
            ),
            array_keys($this->columns->source),
        );
    }

    /** @return list<array{pair: int, source: int, target: int}> what compares its quantity and its unit value, and where their cells are */
    private function comparedPairs(int $number): array
    {
        [$source, $target] = [$this->columns->source[$number], $this->columns->target[$number]];
        $compared = [];
        foreach (
            [[$source->total, $source->place, $target->place], [$source->total->times, $source->unitPlace, $target->unitPlace]]
            as [$of, $inSource, $inTarget]
        ) {
            $pair = $this->pairOf($of?->column(Side::Source), $of?->column(Side::Target));
            if ($pair !== null && $inSource !== null && $inTarget !== null) {
                $compared[] = ['pair' => $pair, 'source' => $inSource, 'target' => $inTarget];
            }
        }

        return $compared;
    }

    private function pairOf(?string $source, ?string $target): ?int
    {
        foreach ($this->plan->columnPairs as $position => $pair) {
            if ($pair->source === $source && $pair->target === $target) {
                return $position;
            }
        }

        return null;
    }
}
