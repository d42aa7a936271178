<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

/**
 * The candidates of a search with the pairs that are proposed, as figures: how many candidates each score has, and at any score how many
 * rows have none, one or several.
 */
final readonly class NearRowsFound
{
    /** Steps of the curve between the lowest score and 1. */
    public const STEPS = 50;

    /** Steps without a candidate that part those above from those below. */
    private const GAP = 8;

    /** Of one heap that is even three quarters of the spread lie between its halves. */
    private const TWO_HEAPS = 0.78;

    private const CAREFUL = 0.85;

    private const LOWEST = 0.65;

    private const HIGHEST = 0.9;

    public OneToOne $assigned;

    /** @param array<int, list<array{int, float}>> $candidates by row of the source */
    public function __construct(public array $candidates)
    {
        $this->assigned = OneToOne::of($candidates);
    }

    /**
     * @return array{candidates: list<int>, best: list<int>, second: list<int>} by step; of best and second: rows whose best, or second,
     *     candidate has that score
     */
    public function curve(): array
    {
        $curve = array_fill_keys(['candidates', 'best', 'second'], array_fill(0, self::STEPS + 1, 0));
        foreach ($this->candidates as $some) {
            foreach ($some as $place => [, $score]) {
                $step = self::step($score);
                $curve['candidates'][$step]++;
                if ($place < 2) {
                    $curve[$place === 0 ? 'best' : 'second'][$step]++;
                }
            }
        }

        return array_map(array_values(...), $curve);
    }

    /**
     * The score from which on pairs are proposed: in the widest stretch of scores that no candidate has. Where there is none, where rows
     * that have found themselves part best from rows that are alike by chance (the threshold of Otsu 1979 over the best scores); and where
     * they do not part into two heaps either, nothing is proposed lightly.
     */
    public function proposedCut(): float
    {
        $curve = $this->curve();
        [$from, $length] = self::widestGap($curve['candidates']);
        if ($length >= self::GAP) {
            return self::within(self::score($from + intdiv(2 * $length, 3)));
        }
        [$step, $parts] = self::otsu($curve['best']);

        return $parts < self::TWO_HEAPS ? self::CAREFUL : self::within(self::score($step));
    }

    private static function within(float $score): float
    {
        return max(self::LOWEST, min(self::HIGHEST, $score));
    }

    /**
     * @param  list<int>  $curve
     * @return array{int, int} first step and steps of the widest stretch without a candidate that has candidates above it
     */
    private static function widestGap(array $curve): array
    {
        [$from, $longest, $length] = [0, 0, 0];
        foreach ($curve as $step => $candidates) {
            if ($candidates > 0 && $length > $longest) {
                [$from, $longest] = [$step - $length, $length];
            }
            $length = $candidates > 0 ? 0 : $length + 1;
        }

        return [$from, $longest];
    }

    /**
     * @param  list<int>  $best
     * @return array{int, float} the step that parts them best, and how much of their spread lies between the two parts
     */
    private static function otsu(array $best): array
    {
        $all = array_sum($best);
        $sum = array_sum(array_map(static fn(int $step, int $rows): int => $step * $rows, array_keys($best), $best));
        [$cut, $widest, $below, $sumBelow, $spread] = [0, 0.0, 0, 0, 0.0];
        foreach ($best as $step => $rows) {
            if ($below > 0 && $below < $all) {
                $between = $below * ($all - $below) * ($sumBelow / $below - ($sum - $sumBelow) / ($all - $below)) ** 2;
                if ($between > $widest) {
                    [$cut, $widest] = [$step, $between];
                }
            }
            $below += $rows;
            $sumBelow += $step * $rows;
            $spread += $all === 0 ? 0.0 : $rows * ($step - $sum / $all) ** 2;
        }

        return [$cut, $spread === 0.0 ? 0.0 : $widest / $all / $spread];
    }

    public static function score(int $step): float
    {
        return LikenessSearch::FLOOR + $step * (1 - LikenessSearch::FLOOR) / self::STEPS;
    }

    private static function step(float $score): int
    {
        return (int) floor(($score - LikenessSearch::FLOOR) / (1 - LikenessSearch::FLOOR) * self::STEPS + 1e-9);
    }
}
