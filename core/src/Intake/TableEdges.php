<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Value\IsoDate;
use NineTally\Core\Value\NumberStyle;

/**
 * What the rows at the edges of a table are, as far as their cells tell: titles and names of groups above it, totals and notes below.
 * Only what a row of the table hardly ever looks like is taken for one of them.
 */
final readonly class TableEdges
{
    /** In the languages that registers here are kept in. */
    private const TOTAL = '/^(?:(?:grand|sub|overall)[ -]?)?'.
        '(?:totals?|sums?|(?:gesamt|zwischen)?summe|gesamt|insgesamt|totaal|totale|suma|somme)\b/iu';

    /**
     * A line of words in a table of several columns: a title, a note, or a row with nothing in it.
     *
     * @param  list<string>  $cells
     */
    public static function isWords(array $cells, int $width): bool
    {
        return $width >= 3 && count(self::filled($cells)) <= 1;
    }

    /**
     * A line of words that may stand below a table. A row of which only a value, or a cell further to the right, is left is a row.
     *
     * @param  list<string>  $cells
     */
    public static function mayBeNote(array $cells, int $width): bool
    {
        $filled = self::filled($cells);

        return $width >= 3 && count($filled) === 1 && array_key_first($filled) === 0 && ! self::isValue($filled[0]);
    }

    /**
     * Whether it is a note even where nothing divides it from the table, which may hold a row of which only its key is left.
     *
     * @param  list<string>  $cells
     */
    public static function isSentence(array $cells): bool
    {
        return preg_match('/:\s|\S+\s+\S+\s+\S/u', implode('', self::filled($cells))) === 1;
    }

    /**
     * Never what they say: it may be what somebody is not to see.
     *
     * @param  string  $noun  line or row
     */
    public static function leftOutBelow(int $count, string $noun, bool $isTotal): string
    {
        return ($count === 1 ? "one {$noun} below the table is" : "{$count} {$noun}s below the table are").
            ' left out'.
            ($isTotal ? ', a total among them' : '');
    }

    /** @param list<string> $cells */
    public static function isTotal(array $cells, int $width): bool
    {
        $filled = self::filled($cells);
        $first = array_shift($filled);

        return $first !== null &&
            $filled !== [] &&
            count($filled) < $width - 1 &&
            preg_match(self::TOTAL, $first) === 1 &&
            array_filter($filled, static fn(string $cell): bool => preg_match('/^[\s\d.,+\-\'’%€$£]+$/u', $cell) !== 1) === [];
    }

    /**
     * Whether a row names groups of columns whose own names stand in the next one: it leaves cells blank that the next one fills, and the
     * next one stands over values without being one.
     *
     * @param  list<string>  $row
     * @param  list<string>  $next
     * @param  list<list<string>>  $below
     */
    public static function isOver(array $row, array $next, array $below): bool
    {
        [$groups, $names] = [self::filled($row), self::filled($next)];
        if (
            $groups === [] ||
            count($groups) >= count($names) ||
            count(array_unique($names)) < count($names) ||
            array_filter([...$groups, ...$names], self::isValue(...)) !== []
        ) {
            return false;
        }
        foreach (array_keys($names) as $column) {
            $values = array_filter(
                array_map(static fn(array $cells): string => trim($cells[$column] ?? ''), $below),
                static fn(string $cell): bool => $cell !== '',
            );
            if (count($values) >= 3 && array_filter($values, self::isValue(...)) === $values) {
                return true;
            }
        }

        return false;
    }

    public static function isValue(string $cell): bool
    {
        return (new NumberStyle)->read($cell, true) !== null ||
            IsoDate::read($cell) !== null ||
            preg_match('#^\d{1,2}[./-]\d{1,2}[./-]\d{4}$#D', $cell) === 1;
    }

    /**
     * The number of cells that most rows fill; of equally frequent ones the larger.
     *
     * @param  array<int, list<string>>  $rows
     */
    public static function usualFilled(array $rows): int
    {
        $times = array_count_values(array_map(static fn(array $cells): int => count(self::filled($cells)), $rows));
        krsort($times);

        return $times === [] ? 0 : (int) array_search(max($times), $times, true);
    }

    /**
     * @param  list<string>  $cells
     * @return array<int, string> by column
     */
    public static function filled(array $cells): array
    {
        return array_filter(array_map(trim(...), $cells), static fn(string $cell): bool => $cell !== '');
    }
}
