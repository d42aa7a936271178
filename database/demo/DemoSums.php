<?php

declare(strict_types=1);

namespace Database\Demo;

use Brick\Math\BigDecimal;

/** What columns of money, and quantities at their rate, add up to, in pence, from the rows as they were made. */
final readonly class DemoSums
{
    /**
     * @param  array<string, list<string>>  $sums  columns, by the column whose values make groups
     * @param  array<string, array<string, string>>  $rates  of quantities, in the same way
     * @param  array{source: array<int, array<string, string>>, target: array<int, array<string, string>>}  $rows  by source name
     * @return array<string, array<string, array<string, int>>> by column, group and side
     */
    public static function of(array $sums, array $rates, array $rows): array
    {
        $found = [];
        foreach ($rates as $by => $ofGroup) {
            foreach ($ofGroup as $column => $rate) {
                foreach ($rows as $side => $ofSide) {
                    foreach ($ofSide as $row) {
                        $pence = is_numeric($row[$column])
                            ? BigDecimal::of($row[$column])->multipliedBy($rate)->multipliedBy(100)->toInt()
                            : 0;
                        $found[$column][$row[$by]][$side] = ($found[$column][$row[$by]][$side] ?? 0) + $pence;
                    }
                }
            }
        }
        foreach ($sums as $by => $columns) {
            foreach ($columns as $column) {
                foreach ($rows as $side => $ofSide) {
                    foreach ($ofSide as $row) {
                        $pence = (int) str_replace(['.', ','], '', $row[$column]);
                        $found[$column][$row[$by]][$side] = ($found[$column][$row[$by]][$side] ?? 0) + $pence;
                    }
                }
            }
        }

        return $found;
    }
}
