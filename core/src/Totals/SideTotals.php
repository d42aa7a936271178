<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\BatchColumns;

/**
 * Takes the rows of a side into its control totals, by group, block by block as they are read. What was taken of several stretches of a
 * side adds up. Groups are by total, and by what they are called where they meet.
 *
 * @phpstan-type Groups array<int, array<string, GroupFigures>>
 */
final readonly class SideTotals
{
    /** Beyond this many, groups tell nobody anything. */
    public const MOST_GROUPS = 100_000;

    /** All further rows are one group; no text holds its byte. */
    public const BEYOND = "\xFC";

    /** The cells that any total looks at. */
    private BatchColumns $columns;

    /**
     * @param  list<TotalColumns>  $totals
     * @param  list<int>  $keyPlaces  by which a row is found again
     */
    public function __construct(private array $totals, private array $keyPlaces)
    {
        $places = array_merge([], ...array_map(static fn(TotalColumns $total): array => $total->places(), $totals));
        $hasExtremes = array_filter($totals, static fn(TotalColumns $total): bool => $total->total->measure->isExtreme()) !== [];
        $this->columns = new BatchColumns([...$places, ...$hasExtremes ? $keyPlaces : []]);
    }

    /** @param Groups $groups so far */
    public function take(Batch $batch, array &$groups, DistinctSpill $distinct): void
    {
        if ($this->totals === []) {
            return;
        }
        $columns = $this->columns->of($batch);
        foreach ($this->totals as $number => $total) {
            // Row by row nothing is asked: what rows of a group have is put together first, and summed up by the machine.
            foreach ($total->byGroup($columns, substr_count($batch->rows, Batch::ROW_END) + 1) as $written => $rows) {
                $group = $total->meets((string) $written);
                $figures = $groups[$number][$group] ?? self::open($groups, $number, $group, $total->labelsOf((string) $written));
                if (is_int($rows)) {
                    $figures->rows += $rows;
                } else {
                    $figures->rows += count($rows);
                    $this->takeAlong($total, $figures, $rows, $columns);
                    if ($total->place === null) {
                        continue;
                    }
                    if ($total->total->measure === Measure::Distinct) {
                        $this->putAside($number, $total, $group, $figures, $rows, $distinct);
                    } else {
                        $this->takeValues($total, $figures, $rows, $columns, $batch->firstLine);
                    }
                }
            }
        }
    }

    /**
     * @param  list<Groups>  $stretches  in the order of the side
     * @return Groups by total, for each total of the plan
     */
    public function together(array $stretches): array
    {
        $groups = array_map(static fn(): array => [], $this->totals);
        foreach ($stretches as $stretch) {
            foreach ($stretch as $number => $figures) {
                foreach ($figures as $group => $one) {
                    $sum = $groups[$number][$group] ?? self::open($groups, $number, (string) $group, $one->labels);
                    $sum->take($one, $this->totals[$number]);
                }
            }
        }

        return $groups;
    }

    /**
     * A group that was not there yet, or the one of all that are beyond the most.
     *
     * @param  Groups  $groups
     * @param  list<string>  $labels
     */
    public static function open(array &$groups, int $number, string $group, array $labels): GroupFigures
    {
        if (count($groups[$number] ?? []) >= self::MOST_GROUPS) {
            return $groups[$number][self::BEYOND] ??= new GroupFigures([]);
        }

        return $groups[$number][$group] = new GroupFigures($labels);
    }

    /** @param array<int, string> $values of the rows of a group */
    private function putAside(
        int $number,
        TotalColumns $total,
        string $group,
        GroupFigures $figures,
        array $values,
        DistinctSpill $distinct,
    ): void {
        foreach (array_count_values($values) as $value => $rows) {
            $cell = (string) $value;
            if ($total->reading->isBlank($cell)) {
                $figures->blanks += $rows;

                continue;
            }
            $canonical = $total->canonical($cell);
            $distinct->add($number, ShareCounts::ALL, $canonical, $cell);
            if ($total->total->by !== []) {
                $distinct->add($number, $group, $canonical, $cell);
            }
        }
    }

    /**
     * @param  array<int, string>  $values  of the rows of a group, by the number of the row in its block
     * @param  array<int, list<string>>  $columns
     */
    private function takeValues(TotalColumns $total, GroupFigures $figures, array $values, array $columns, int $firstLine): void
    {
        if ($total->hasUnit()) {
            $this->takeAmounts($total, $figures, $values, $columns);

            return;
        }
        if ($total->total->measure === Measure::Sum && $total->isPlain && $figures->sum->addPlainOnes($values)) {
            return;
        }
        foreach ($values as $row => $cell) {
            if ($total->reading->isBlank($cell)) {
                $figures->blanks++;
            } elseif ($total->total->measure === Measure::Sum) {
                if (! $total->isPlain || ! $figures->sum->addPlain($cell)) {
                    $number = $total->number($cell);
                    $number === null ? $figures->unread++ : $figures->sum->add($number);
                }
            } elseif ($total->total->measure->isExtreme()) {
                $key = array_map(static fn(int $place): string => $columns[$place][$row], $this->keyPlaces);
                $figures->see($cell, $total, $key, $firstLine + $row);
            }
        }
    }

    /**
     * @param  array<int, string>  $quantities  of the rows of a group, by the number of the row in its block
     * @param  array<int, list<string>>  $columns
     */
    private function takeAmounts(TotalColumns $total, GroupFigures $figures, array $quantities, array $columns): void
    {
        foreach ($quantities as $row => $cell) {
            if ($total->reading->isBlank($cell)) {
                $figures->blanks++;

                continue;
            }
            $unit = $total->unitOf($columns, $row);
            $amount = $total->times($total->number($cell), $unit);
            match (true) {
                $amount !== null => $figures->sum->add($amount),
                $unit === null => $figures->unvalued++,
                default => $figures->unread++,
            };
        }
    }

    /**
     * @param  array<int, string>  $rows  of a group, by the number of the row in its block
     * @param  array<int, list<string>>  $columns
     */
    private function takeAlong(TotalColumns $total, GroupFigures $figures, array $rows, array $columns): void
    {
        foreach ($total->alongPlaces as $nth => $place) {
            foreach (array_unique(array_intersect_key($columns[$place], $rows)) as $value) {
                $figures->seeAlong($nth, $value, $total->canonicalAlong($value, $nth));
            }
        }
    }
}
