<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Assignment;

/**
 * The assignment with the highest sum of scores, exactly (Kuhn 1955, Munkres 1957; with shortest augmenting paths, Jonker and Volgenant
 * 1987).
 */
final readonly class Hungarian
{
    /** Of equal sums the one is taken that keeps the order of both sides. It is far below what two scores can differ by in sum. */
    private const ORDER = 1e-12;

    /**
     * @param  array<int, list<array{int, float}>>  $candidates  by row of the source: rows of the target and scores above 0
     * @return array<int, int> source => target; without those for which nothing is left
     */
    public static function assigned(array $candidates): array
    {
        $sources = array_keys($candidates);
        $targets = array_values(
            array_unique(array_merge(...array_map(static fn(array $some): array => array_column($some, 0), array_values($candidates)))),
        );
        sort($sources);
        sort($targets);
        $columns = array_flip($targets);
        $costs = [];
        foreach ($sources as $row => $source) {
            $costs[$row] = array_fill(0, count($targets), 0.0);
            foreach ($candidates[$source] as [$target, $score]) {
                $column = $columns[$target];
                $costs[$row][$column] = -$score + self::ORDER * ($row - $column) ** 2;
            }
        }
        $isTurned = count($sources) > count($targets);
        $found = [];
        foreach (self::solved($isTurned ? self::turned($costs) : $costs) as $row => $column) {
            [$row, $column] = $isTurned ? [$column, $row] : [$row, $column];
            // A place without a candidate means that the row is left alone.
            if ($costs[$row][$column] < 0) {
                $found[$sources[$row]] = $targets[$column];
            }
        }

        return $found;
    }

    /**
     * @param  array<int, array<int, float>>  $costs
     * @return array<int, array<int, float>>
     */
    private static function turned(array $costs): array
    {
        $turned = [];
        foreach ($costs as $row => $line) {
            foreach ($line as $column => $cost) {
                $turned[$column][$row] = $cost;
            }
        }

        return $turned;
    }

    /**
     * @param  array<int, array<int, float>>  $costs  not more rows than columns
     * @return array<int, int> column of each row
     */
    private static function solved(array $costs): array
    {
        [$rows, $width] = [count($costs), count($costs[0])];
        // Places are counted from 1; place 0 is where a row begins that has none yet.
        $ofRow = array_fill(0, $rows + 1, 0.0);
        $ofColumn = array_fill(0, $width + 1, 0.0);
        $rowOf = $from = array_fill(0, $width + 1, 0);
        for ($row = 1; $row <= $rows; $row++) {
            $rowOf[0] = $row;
            $column = 0;
            $least = array_fill(1, $width, INF);
            $isUsed = array_fill(0, $width + 1, false);
            do {
                $isUsed[$column] = true;
                $at = $rowOf[$column];
                $line = $costs[$at - 1];
                $step = INF;
                $next = 0;
                foreach ($least as $place => $known) {
                    if ($isUsed[$place]) {
                        continue;
                    }
                    $reduced = $line[$place - 1] - $ofRow[$at] - $ofColumn[$place];
                    if ($reduced < $known) {
                        $known = $least[$place] = $reduced;
                        $from[$place] = $column;
                    }
                    if ($known < $step) {
                        $step = $known;
                        $next = $place;
                    }
                }
                for ($place = 0; $place <= $width; $place++) {
                    if ($isUsed[$place]) {
                        $ofRow[$rowOf[$place]] += $step;
                        $ofColumn[$place] -= $step;
                    } elseif ($place > 0) {
                        $least[$place] -= $step;
                    }
                }
                $column = $next;
            } while ($rowOf[$column] !== 0);
            do {
                $before = $from[$column];
                $rowOf[$column] = $rowOf[$before];
                $column = $before;
            } while ($column !== 0);
        }
        $columns = [];
        foreach ($rowOf as $place => $row) {
            if ($place > 0 && $row > 0) {
                $columns[$row - 1] = $place - 1;
            }
        }

        return $columns;
    }
}
