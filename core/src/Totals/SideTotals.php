<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Intake\Batch;

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

    /**
     * @param  list<TotalColumns>  $totals
     * @param  list<int>  $keyPlaces  by which a row is found again
     */
    public function __construct(private array $totals, private array $keyPlaces) {}

    /** @param Groups $groups so far */
    public function take(Batch $batch, array &$groups): void
    {
        if ($this->totals === []) {
            return;
        }
        foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
            $cells = explode(Batch::CELL_END, $row);
            foreach ($this->totals as $number => $total) {
                $group = $total->group($cells);
                $figures = $groups[$number][$group] ?? self::open($groups, $number, $group, $total->labels($cells));
                $figures->rows++;
                if ($total->place !== null) {
                    $this->takeValue($total, $figures, $cells, $cells[$total->place]);
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
     * @param  Groups  $groups
     * @param  list<string>  $labels
     */
    private static function open(array &$groups, int $number, string $group, array $labels): GroupFigures
    {
        if (count($groups[$number] ?? []) >= self::MOST_GROUPS) {
            return $groups[$number][self::BEYOND] ??= new GroupFigures([]);
        }

        return $groups[$number][$group] = new GroupFigures($labels);
    }

    /** @param list<string> $cells */
    private function takeValue(TotalColumns $total, GroupFigures $figures, array $cells, string $cell): void
    {
        if ($total->reading->isBlank($cell)) {
            $figures->blanks++;

            return;
        }
        if ($total->total->measure === Measure::Sum) {
            if ($total->isPlain && $figures->sum->addPlain($cell)) {
                return;
            }
            $number = $total->number($cell);
            $number === null ? $figures->unread++ : $figures->sum->add($number);
        } elseif ($total->total->measure->isExtreme()) {
            $figures->see($cell, $total, array_map(static fn(int $place): string => $cells[$place], $this->keyPlaces));
        }
    }
}
