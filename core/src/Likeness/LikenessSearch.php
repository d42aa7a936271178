<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Row\Side;

/**
 * Finds the rows of the target that are most like a row of the source, without comparing all with all: only those are compared that share
 * rare traces with it, the rarest first (inverted lists with accumulators, Zobel and Moffat 2006; how much a trace tells is the logarithm
 * of how rare it is, Spärck Jones 1972). What it misses is measured in docs/near-keys.md.
 */
final class LikenessSearch
{
    /** How many candidates a row keeps. */
    public const KEPT = 5;

    /** What is less alike than this is no candidate. */
    public const FLOOR = 0.5;

    /** Rows that are compared cell by cell with one. */
    private const COMPARED = 20;

    /** Among so few all are compared. */
    private const ALL_COMPARED = 60;

    /** Entries of the lists that are visited for one row. */
    private const VISITED = 2_500;

    /** Rows that are held against each other to see how alike they are by chance. */
    private const CHANCE_PAIRS = 1_000;

    /** Where nearly all is the same a difference must still count. */
    private const MOST_CHANCE = 0.9;

    /** By which sums of doubles may be off. */
    private const ROUNDING = 1e-9;

    /** What shares so much less than the best is not compared. */
    private const SHARE_OF_BEST = 0.25;

    /** @var list<Measure> */
    private array $measures;

    /** @var list<list<mixed>> what is compared, by target row and column */
    private array $rows = [];

    /** @var array<array-key, list<int>> target rows, by column and trace */
    private array $lists = [];

    /** @var list<float> how alike two rows are by chance, by column */
    private array $chance;

    private readonly float $allWeights;

    /** @param non-empty-list<LikenessColumn> $columns */
    public function __construct(private readonly array $columns, FoldedText $folded = new FoldedText)
    {
        $this->measures = array_map(static fn(LikenessColumn $column): Measure => $column->kind->measure($folded), $columns);
        $this->chance = array_fill(0, count($columns), 0.0);
        $this->allWeights = (float) array_sum(array_map(static fn(LikenessColumn $column): float => (float) $column->weight, $columns));
    }

    /** @param list<string> $cells of a row of the target, in the order of the columns */
    public function add(array $cells): void
    {
        $number = count($this->rows);
        $this->rows[] = $made = $this->made($cells, Side::Target);
        foreach ($this->traces($made) as $trace => $_) {
            $this->lists[$trace][] = $number;
        }
    }

    /**
     * From here on likeness is told beyond chance, as agreement is by Cohen (1960): 0 for a column that is as alike as in any two rows, 1
     * for one that is the same. Days of one season, or fees of one table, are never far apart and say little.
     *
     * @param  list<list<string>>  $sources  rows of the source, of which some are held against some of the target
     */
    public function calibrate(array $sources): void
    {
        [$rows, $sums, $compared] = [count($this->rows), $this->chance, $this->chance];
        $pairs = $rows === 0 || $sources === [] ? 0 : min(self::CHANCE_PAIRS, $rows * count($sources));
        for ($pair = 0; $pair < $pairs; $pair++) {
            // Spread over both sides, and the same each time.
            $source = $this->made($sources[$pair * 7_919 % count($sources)], Side::Source);
            $target = $this->rows[($pair * 104_729 + intdiv($pair, $rows)) % $rows];
            foreach ($this->measures as $at => $measure) {
                if ($source[$at] !== null && $target[$at] !== null) {
                    $sums[$at] += $measure->likeness($source[$at], $target[$at]);
                    $compared[$at]++;
                }
            }
        }
        $this->chance = array_map(
            static fn(float $sum, float $count): float => $count === 0.0 ? 0.0 : min(self::MOST_CHANCE, $sum / $count),
            $sums,
            $compared,
        );
    }

    /**
     * The rows of the target that are most like it, the most alike first; of equals the first first.
     *
     * @param  list<string>  $cells  of a row of the source
     * @param  array<int, true>|null  $among  numbers of the rows that are looked among; null for all
     * @return list<array{int, float}> number of the row as it was added, from 0, and its score from 0 to 1
     */
    public function candidates(array $cells, ?array $among = null): array
    {
        $made = $this->made($cells, Side::Source);
        $found = $scores = [];
        $least = self::FLOOR;
        foreach (
            $among !== null && count($among) <= self::ALL_COMPARED ? array_keys($among) : $this->worthComparing($made, $among)
            as $number
        ) {
            $score = $this->score($made, $this->rows[$number], $least);
            if ($score >= self::FLOOR) {
                $found[] = [$number, $score];
                $scores[] = $score;
                if (count($scores) >= self::KEPT) {
                    rsort($scores);
                    $least = $scores[self::KEPT - 1];
                }
            }
        }
        usort($found, static fn(array $one, array $other): int => $other[1] <=> $one[1] ?: $one[0] <=> $other[0]);

        return array_slice($found, 0, self::KEPT);
    }

    /**
     * How alike two rows are: the mean of their columns by weight. A column that is blank on one side alone counts half, and against them.
     *
     * @param  list<string>  $source
     * @param  list<string>  $target
     */
    public function likeness(array $source, array $target): float
    {
        return $this->score($this->made($source, Side::Source), $this->made($target, Side::Target));
    }

    /**
     * @param  list<string>  $cells
     * @return list<mixed>
     */
    private function made(array $cells, Side $side): array
    {
        $made = [];
        foreach ($this->columns as $at => $column) {
            $made[] = $this->measures[$at]->made($cells[$at], $side === Side::Source ? $column->source : $column->target);
        }

        return $made;
    }

    /**
     * @param  list<mixed>  $one
     * @param  list<mixed>  $other
     * @param  float  $least  of two that are less alike it is enough to know that: nought, and the columns that are left are not compared
     */
    private function score(array $one, array $other, float $least = 0.0): float
    {
        $sum = $weights = 0.0;
        $left = $this->allWeights;
        foreach ($this->columns as $at => $column) {
            // If all that is left were the same.
            if ($sum + $left < ($least - self::ROUNDING) * ($weights + $left)) {
                return 0.0;
            }
            $left -= $column->weight;
            if ($one[$at] === null && $other[$at] === null) {
                continue;
            }
            if ($one[$at] === null || $other[$at] === null) {
                $weights += $column->weight / 2;

                continue;
            }
            $likeness = $one[$at] === $other[$at] ? 1.0 : $this->measures[$at]->likeness($one[$at], $other[$at]);
            $sum += $column->weight * max(0.0, ($likeness - $this->chance[$at]) / (1 - $this->chance[$at]));
            $weights += $column->weight;
        }

        return $weights === 0.0 ? 0.0 : $sum / $weights;
    }

    /**
     * @param  list<mixed>  $made
     * @return array<array-key, int> weight, by column and trace
     */
    private function traces(array $made): array
    {
        $traces = [];
        foreach ($this->columns as $at => $column) {
            if ($made[$at] !== null) {
                foreach ($this->measures[$at]->traces($made[$at]) as $trace) {
                    $traces["{$at}:{$trace}"] = $column->weight;
                }
            }
        }

        return $traces;
    }

    /**
     * @param  list<mixed>  $made
     * @param  array<int, true>|null  $among
     * @return list<int>
     */
    private function worthComparing(array $made, ?array $among): array
    {
        $weights = $this->traces($made);
        $lengths = [];
        foreach ($weights as $trace => $_) {
            if (isset($this->lists[$trace])) {
                $lengths[$trace] = count($this->lists[$trace]);
            }
        }
        asort($lengths);
        $rows = count($this->rows);
        $shared = [];
        $visited = 0;
        foreach ($lengths as $trace => $length) {
            if ($visited > 0 && $visited + $length > self::VISITED) {
                break;
            }
            $visited += $length;
            $tells = $weights[$trace] * log(1 + $rows / $length);
            $list = $length > self::VISITED ? array_slice($this->lists[$trace], 0, self::VISITED) : $this->lists[$trace];
            foreach ($among === null ? $list : array_filter($list, static fn(int $one): bool => isset($among[$one])) as $number) {
                $shared[$number] = ($shared[$number] ?? 0) + $tells;
            }
        }
        if ($shared === []) {
            return [];
        }
        $least = self::SHARE_OF_BEST * max($shared);
        $worth = [];
        foreach ($shared as $number => $share) {
            if ($share >= $least) {
                $worth[$number] = $share;
            }
        }
        if (count($worth) > self::COMPARED) {
            arsort($worth);
            $worth = array_slice($worth, 0, self::COMPARED, preserve_keys: true);
        }

        return array_keys($worth);
    }
}
