<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\TableEdges;

/**
 * Finds the row of names: below lines of a title that the delimiter does not divide, or nowhere, when the first row holds values.
 *
 * A row of names is taken for values only on evidence that names do not give: numbers or days that are no years and do not count up, in
 * columns that hold nothing else. A file whose first row was taken for names by mistake has lost that row before anything is counted.
 */
final readonly class HeaderDetection
{
    private const MOST_ABOVE = 20;

    /** So many values have to be alike before their shape tells anything. */
    private const LIKE_EACH_OTHER = 5;

    /** @param list<array{int, list<string>}> $records the physical line on which each begins, counted from 0; its cells */
    private function __construct(private array $records, private int $width) {}

    /**
     * @param  list<array{int, list<string>}>  $records  of the beginning of a file
     * @return array{skipAbove: int, hasHeader: bool, reason: string}
     */
    public static function find(array $records): array
    {
        $widths = array_map(static fn(array $record): int => count($record[1]), $records);
        $self = new self($records, self::usual($widths));
        $first = $self->firstRow();
        $line = $records[$first][0] ?? 0;
        $above =
            $first === 0
                ? ''
                : sprintf(
                    'below %s, ',
                    $line === 1 ? 'one line that is no row of the table' : "{$line} lines that are no rows of the table",
                );
        $isValues = $self->holdsValues($first);

        return [
            'skipAbove' => $first === 0 ? 0 : $line,
            'hasHeader' => ! $isValues,
            'reason' =>
                $above.
                ($isValues
                    // Never which: they may be what somebody is not to see.
                    ? 'the first row is written like those below and is taken for values: say so below if it names the columns'
                    : 'the first row names the columns'),
        ];
    }

    /**
     * The number of cells that most records have; of equally frequent ones the first.
     *
     * @param  list<int>  $widths
     */
    public static function usual(array $widths): int
    {
        $times = array_count_values($widths);

        return $times === [] ? 0 : (int) array_search(max($times), $times, true);
    }

    /** @return int the first record that is divided as the table is */
    private function firstRow(): int
    {
        for ($place = 0; $this->width > 1 && $place <= self::MOST_ABOVE && isset($this->records[$place + 1]); $place++) {
            $cells = count($this->records[$place][1]);
            if ($cells === $this->width) {
                return $this->belowTitles($place);
            }
            // A row of names with a cell too few is a row of names.
            if (2 * $cells > $this->width) {
                break;
            }
        }

        return 0;
    }

    /** @return int past titles that are as wide as the table, and names of groups of columns */
    private function belowTitles(int $place): int
    {
        $cells = fn(int $at): ?array => isset($this->records[$at]) && count($this->records[$at][1]) === $this->width
            ? $this->records[$at][1]
            : null;
        for ($from = $place; $place - $from < self::MOST_ABOVE; $place++) {
            [$row, $next] = [$cells($place), $cells($place + 1)];
            if ($row === null || $next === null) {
                break;
            }
            $below = array_map(static fn(array $record): array => $record[1], array_slice($this->records, $place + 2, 30));
            if (! TableEdges::isWords($row, $this->width) && ! TableEdges::isOver($row, $next, $below)) {
                return $place;
            }
        }

        return $from;
    }

    private function holdsValues(int $first): bool
    {
        $rows = array_values(
            array_filter(array_slice($this->records, $first + 1), fn(array $record): bool => count($record[1]) === $this->width),
        );
        $names = $this->records[$first][1] ?? [];
        if ($rows === [] || count($names) !== $this->width) {
            return false;
        }
        $evidence = [];
        foreach ($names as $column => $name) {
            $below = array_filter(
                array_map(static fn(array $row): string => trim($row[1][$column]), $rows),
                static fn(string $cell): bool => $cell !== '',
            );
            $isValues = $below !== [] && array_filter($below, TableEdges::isValue(...)) === $below;
            $shapes = array_unique(array_map(self::shape(...), $below));
            // Nearly as good as a number: letters and digits that stand alike in every row.
            $isShaped = ! $isValues && count($below) >= self::LIKE_EACH_OTHER && count($shapes) === 1 && reset($shapes) !== '';
            if (TableEdges::isValue(trim($name)) || ($isShaped && self::shape(trim($name)) === reset($shapes))) {
                $evidence = $isValues || $isShaped ? [...$evidence, trim($name)] : $evidence;
            } elseif ($isValues || $isShaped) {
                return false;
            }
        }

        return array_filter($evidence, static fn(string $value): bool => preg_match('/^(?:1[89]|20|21)\d\d$/D', $value) !== 1) !== [] &&
            ! self::countsUp($evidence);
    }

    /**
     * What a value is made of, where digits are in it: "B9" for B12, B7 and so on; '' where there are none.
     */
    private static function shape(string $cell): string
    {
        $shape = (string) preg_replace(['/\d+/', '/\p{Lu}+/u', '/\p{Ll}+/u'], ['9', 'A', 'a'], $cell);

        return str_contains($shape, '9') ? $shape : '';
    }

    /** @param list<string> $values columns named 1, 2, 3 are names: of months, of weeks */
    private static function countsUp(array $values): bool
    {
        foreach ($values as $place => $value) {
            if (! ctype_digit($value) || ($place > 0 && (int) $value !== (int) $values[$place - 1] + 1)) {
                return false;
            }
        }

        return count($values) > 1;
    }
}
