<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Searches the smallest sets of columns that tell the rows of both sides apart, on a sample: level by level, from one column on, where
 * no set that contains a key is looked at again. Rows that a set does not tell apart are held as stripped partitions, which shrink as
 * columns are added (TANE: Huhtala, Kärkkäinen, Porkka, Toivonen 1999, section 3). The most promising sets of each level go on.
 */
final readonly class KeySearch
{
    /** At most one row in a thousand may repeat. */
    public const NEARLY = 0.001;

    /** Where no set is as good as that, sets are named in which more rows repeat. */
    public const AT_ALL = 0.02;

    public const LONGEST = 6;

    /** @param float $mayRepeat the share of rows that may share their key */
    public function __construct(private float $mayRepeat = self::NEARLY) {}

    /** Sets that go on to the next level. */
    private const WIDTH = 60;

    /** Rows of each side that are looked at first; what is found on them is held against all rows of the sample. */
    private const FIRST_ROWS = 2_000;

    private const MOST_KEYS = 12;

    /** A column that is blank in more rows than this is no part of a key. */
    private const MOST_BLANK = 0.2;

    /**
     * @param  list<array{source: list<string>, target: list<string>}>  $columns  pair by pair: the cells of all rows of the sample of each
     *     side
     * @param  (callable(int, int): void)|null  $onProgress  told the level, and how many sets were looked at
     * @return list<AdvisedKey> the fewest columns first, then the fewest rows that repeat, then the order of the columns
     */
    public function keys(array $columns, ?callable $onProgress = null): array
    {
        $columns = self::withoutBlankRows($columns);
        $rows = ['source' => count($columns[0]['source'] ?? []), 'target' => count($columns[0]['target'] ?? [])];
        if ($rows['source'] === 0 || $rows['target'] === 0) {
            return [];
        }
        $usable = array_filter($columns, $this->isUsable(...));
        $all = array_map(
            static fn(array $cells): array => ['source' => self::numbered($cells['source']), 'target' => self::numbered($cells['target'])],
            $usable,
        );
        $first = array_map(
            static fn(array $numbers): array => array_map(
                static fn(array $ofSide): array => array_slice($ofSide, 0, self::FIRST_ROWS),
                $numbers,
            ),
            $all,
        );
        $keys = [];
        foreach ($this->searched($first, $rows, $onProgress) as $set) {
            $repeats = $this->repeats($set, $all, $rows);
            if ($this->isNearlyUnique($repeats, $rows)) {
                $shorter = [];
                foreach (count($set) === 1 ? [] : $set as $left) {
                    $shorter[$left] = $this->repeats(array_values(array_diff($set, [$left])), $all, $rows);
                }
                $keys[] = new AdvisedKey($set, $repeats, $rows, $shorter);
            }
        }
        usort(
            $keys,
            static fn(AdvisedKey $one, AdvisedKey $other): int => count($one->places) <=> count($other->places) ?:
            max($one->repeats) <=> max($other->repeats) ?:
            array_sum($one->places) <=> array_sum($other->places),
        );

        return $keys;
    }

    /**
     * Rows with nothing in any of the columns have no key, whichever is chosen.
     *
     * @param  list<array{source: list<string>, target: list<string>}>  $columns
     * @return list<array{source: list<string>, target: list<string>}>
     */
    private static function withoutBlankRows(array $columns): array
    {
        $blank = ['source' => [], 'target' => []];
        foreach (['source', 'target'] as $side) {
            $rows = array_keys($columns[0][$side] ?? [], '', true);
            foreach ($columns as $cells) {
                $rows = array_filter($rows, static fn(int $row): bool => $cells[$side][$row] === '');
            }
            $blank[$side] = array_flip($rows);
        }

        return array_map(static fn(array $cells): array => [
            'source' => array_values(array_diff_key($cells['source'], $blank['source'])),
            'target' => array_values(array_diff_key($cells['target'], $blank['target'])),
        ], $columns);
    }

    /**
     * @param  array<int, array{source: list<int>, target: list<int>}>  $numbers  of the first rows, by column
     * @param  array{source: int, target: int}  $rows
     * @param  (callable(int, int): void)|null  $onProgress
     * @return list<non-empty-list<int>> sets that tell the first rows apart, none of which holds another
     */
    private function searched(array $numbers, array $rows, ?callable $onProgress): array
    {
        $rows = array_map(static fn(int $count): int => min($count, self::FIRST_ROWS), $rows);
        $keys = [];
        $beam = [[[], ['source' => [range(0, $rows['source'] - 1)], 'target' => [range(0, $rows['target'] - 1)]]]];
        for ($length = 1; $length <= min(self::LONGEST, count($numbers)) && $beam !== [] && count($keys) < self::MOST_KEYS; $length++) {
            $open = [];
            foreach ($this->larger($beam, array_keys($numbers), $keys) as $name => [$set, $from, $added]) {
                $repeats = array_map(static fn(string $side): int => self::repeating($beam[$from][1][$side], $numbers[$added][$side]), [
                    'source' => 'source',
                    'target' => 'target',
                ]);
                if ($this->isNearlyUnique($repeats, $rows)) {
                    $keys[] = $set;
                } else {
                    $open[$name] = [max($repeats['source'] / $rows['source'], $repeats['target'] / $rows['target']), $set, $from, $added];
                }
            }
            $onProgress === null || $onProgress($length, count($open));
            usort($open, static fn(array $one, array $other): int => $one[0] <=> $other[0] ?: $one[1] <=> $other[1]);
            $beam = array_map(static fn(array $one): array => [$one[1], [
                'source' => self::refined($beam[$one[2]][1]['source'], $numbers[$one[3]]['source']),
                'target' => self::refined($beam[$one[2]][1]['target'], $numbers[$one[3]]['target']),
            ]], array_slice($open, 0, $length === 1 ? count($open) : self::WIDTH));
        }

        return $keys;
    }

    /**
     * Each set with one column more, once, and none that holds a key.
     *
     * @param  list<array{list<int>, mixed}>  $beam
     * @param  list<int>  $places
     * @param  list<list<int>>  $keys
     * @return array<string, array{non-empty-list<int>, int, int}> the set, where in the beam it comes from, and the column that was added
     */
    private function larger(array $beam, array $places, array $keys): array
    {
        $larger = [];
        foreach ($beam as $from => [$set]) {
            foreach (array_diff($places, $set) as $added) {
                $with = [...$set, $added];
                sort($with);
                $name = implode(',', $with).',';
                if (! isset($larger[$name]) && array_filter($keys, static fn(array $key): bool => array_diff($key, $with) === []) === []) {
                    $larger[$name] = [$with, $from, $added];
                }
            }
        }

        return $larger;
    }

    /**
     * @param  list<int>  $set
     * @param  array<int, array{source: list<int>, target: list<int>}>  $numbers
     * @param  array{source: int, target: int}  $rows
     * @return array{source: int, target: int} rows that share their values of the set
     */
    private function repeats(array $set, array $numbers, array $rows): array
    {
        $repeats = [];
        foreach (['source', 'target'] as $side) {
            $classes = [range(0, $rows[$side] - 1)];
            foreach ($set as $place) {
                $classes = self::refined($classes, $numbers[$place][$side]);
            }
            $repeats[$side] = array_sum(array_map(count(...), $classes));
        }

        return $repeats;
    }

    /**
     * @param  array{source: int, target: int}  $repeats
     * @param  array{source: int, target: int}  $rows
     */
    private function isNearlyUnique(array $repeats, array $rows): bool
    {
        return $repeats['source'] <= $this->mayRepeat * $rows['source'] && $repeats['target'] <= $this->mayRepeat * $rows['target'];
    }

    /** @param array{source: list<string>, target: list<string>} $cells */
    private function isUsable(array $cells): bool
    {
        foreach ($cells as $ofSide) {
            $blank = count(array_filter($ofSide, static fn(string $cell): bool => $cell === ''));
            if ($blank > self::MOST_BLANK * count($ofSide) || count(array_unique($ofSide)) < 2 && count($ofSide) > 1) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  list<string>  $cells
     * @return list<int> a number for each value
     */
    private static function numbered(array $cells): array
    {
        $numbers = [];

        return array_map(static function (string $cell) use (&$numbers): int {
            return $numbers[$cell] ??= count($numbers);
        }, $cells);
    }

    /**
     * @param  list<list<int>>  $classes  rows that are not told apart
     * @param  list<int>  $numbers  of the column that is added
     * @return list<list<int>> without rows that now stand alone
     */
    private static function refined(array $classes, array $numbers): array
    {
        $refined = [];
        foreach ($classes as $rows) {
            $parts = [];
            foreach ($rows as $row) {
                $parts[$numbers[$row]][] = $row;
            }
            foreach ($parts as $part) {
                if (count($part) > 1) {
                    $refined[] = $part;
                }
            }
        }

        return $refined;
    }

    /**
     * How many rows would still not be told apart; counted without building what refined() builds.
     *
     * @param  list<list<int>>  $classes
     * @param  list<int>  $numbers
     */
    private static function repeating(array $classes, array $numbers): int
    {
        $repeating = 0;
        foreach ($classes as $rows) {
            $seen = [];
            foreach ($rows as $row) {
                $number = $numbers[$row];
                if (! isset($seen[$number])) {
                    $seen[$number] = true;
                } elseif ($seen[$number]) {
                    $seen[$number] = false;
                    $repeating += 2;
                } else {
                    $repeating++;
                }
            }
        }

        return $repeating;
    }
}
