<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\MonthNames;

/**
 * Columns of one side that stand as rows on the other: a run of columns whose names are months, years or one word with numbers, where the
 * other side has a column with these names as values, and another with their values.
 */
final readonly class FoldAdvice
{
    private const FEWEST = 3;

    /** Of the names so many of a hundred must stand on the other side as values. */
    private const NAMES_PERCENT = 60;

    private const VALUES_PERCENT = 30;

    /**
     * @param  list<string>  $columns  names of one side, in their order
     * @return list<list<string>> runs of columns that are alike, the longest first
     */
    public static function runs(array $columns): array
    {
        $runs = [];
        $before = null;
        foreach ($columns as $name) {
            $shape = self::shape($name);
            if ($shape !== null && $shape === $before) {
                $runs[array_key_last($runs) ?? 0][] = $name;
            } elseif ($shape !== null) {
                $runs[] = [$name];
            }
            $before = $shape;
        }
        $runs = array_values(array_filter($runs, static fn(array $run): bool => count($run) >= self::FEWEST));
        usort($runs, static fn(array $one, array $other): int => count($other) <=> count($one));

        return $runs;
    }

    /**
     * @param  array<string, list<string>>  $here  by column: values that stand there
     * @param  array<string, list<string>>  $there
     * @return array{columns: list<string>, namesInto: string, valuesInto: string}|null with the names of the other side's columns
     */
    public function of(array $here, array $there): ?array
    {
        // What both sides have by name stands on both as it is.
        $paired = ColumnNames::pairs(array_map(strval(...), array_keys($here)), array_map(strval(...), array_keys($there)));
        $left = array_diff_key($there, array_flip($paired));
        foreach (self::runs(array_values(array_diff(array_map(strval(...), array_keys($here)), array_keys($paired)))) as $run) {
            $namesInto = $this->best($run, $left, self::isName(...), self::NAMES_PERCENT);
            if ($namesInto === null) {
                continue;
            }
            $values = array_merge(...array_map(static fn(string $column): array => $here[$column], $run));
            $valuesInto = $this->best(
                array_values(array_unique(array_map(LikelyValue::bare(...), $values))),
                array_diff_key($left, [$namesInto => true]),
                static fn(string $one, array $others): bool => isset($others[$one]),
                self::VALUES_PERCENT,
            );
            if ($valuesInto !== null) {
                return ['columns' => $run, 'namesInto' => $namesInto, 'valuesInto' => $valuesInto];
            }
        }

        return null;
    }

    /**
     * @param  list<string>  $wanted
     * @param  array<string, list<string>>  $columns
     * @param  callable(string, array<string, true>): bool  $stands
     * @return string|null the column in which most of them stand
     */
    private function best(array $wanted, array $columns, callable $stands, int $percent): ?string
    {
        [$best, $found] = [$percent, null];
        foreach ($columns as $column => $values) {
            $bare = array_fill_keys(array_map(LikelyValue::bare(...), $values), true);
            $share = 100 * count(array_filter($wanted, static fn(string $one): bool => $stands($one, $bare))) / max(1, count($wanted));
            // Nearly all values of the column are of that sort, else it holds much beside them.
            if ($share >= $best) {
                [$best, $found] = [$share + 0.001, (string) $column];
            }
        }

        return $found;
    }

    /** @param array<string, true> $values */
    private static function isName(string $name, array $values): bool
    {
        if (isset($values[LikelyValue::bare($name)])) {
            return true;
        }
        $month = MonthNames::month($name);
        foreach ($month === null ? [] : array_slice(array_keys($values), 0, 40) as $value) {
            if (MonthNames::month((string) $value) === $month) {
                return true;
            }
        }

        return false;
    }

    /** @return string|null the same for columns that are alike; null where a name says nothing of that */
    private static function shape(string $name): ?string
    {
        $shape = preg_replace_callback(
            ['/\p{L}{3,}/u', '/\d+/'],
            static fn(array $found): string => ctype_digit($found[0]) ? '9' : (MonthNames::month($found[0]) === null ? $found[0] : "\1"),
            rtrim($name, '. '),
        );

        return $shape !== null && preg_match('/[9\x01]/', $shape) === 1 ? $shape : null;
    }
}
