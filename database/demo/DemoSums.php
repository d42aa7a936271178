<?php

declare(strict_types=1);

namespace Database\Demo;

use Brick\Math\BigDecimal;

/** What columns of money, and quantities at their rate, add up to, in pence, from the rows as they were made. */
final readonly class DemoSums
{
    /**
     * @param  array{source: array<int, array<string, string>>, target: array<int, array<string, string>>}  $rows  by source name
     * @return array{sums: array<string, array<string, array<string, int>>>, records: array<string, array{values: int, rows: int}>}
     */
    public static function truth(DemoRules $rules, array $rows): array
    {
        return ['sums' => self::of($rules, $rows), 'records' => $rules->records === [] ? [] : Agents::truth($rows)];
    }

    /**
     * @param  array{source: array<int, array<string, string>>, target: array<int, array<string, string>>}  $rows  by source name
     * @return array<string, array<string, array<string, int>>> by column, group and side
     */
    private static function of(DemoRules $rules, array $rows): array
    {
        $found = [];
        foreach ($rules->rates as $by => $ofGroup) {
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
        foreach ($rules->sums as $by => $columns) {
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
