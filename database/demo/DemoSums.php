<?php

declare(strict_types=1);

namespace Database\Demo;

/** What columns of money add up to, in pence, from the rows as they were made. */
final readonly class DemoSums
{
    /**
     * @param  array<string, list<string>>  $sums  columns, by the column whose values make groups
     * @param  array{source: array<int, array<string, string>>, target: array<int, array<string, string>>}  $rows  by source name
     * @return array<string, array<string, array<string, int>>> by column, group and side
     */
    public static function of(array $sums, array $rows): array
    {
        $found = [];
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
