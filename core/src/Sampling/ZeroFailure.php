<?php

declare(strict_types=1);

namespace NineTally\Core\Sampling;

/**
 * How many rows must be looked at, and all be right, to say with some confidence that fewer than some share of all of them are wrong; and
 * what is shown where not all are right.
 *
 * Sampling plans that accept on zero failures: E. G. Schilling and D. V. Neubauer, Acceptance Sampling in Quality Control, third edition,
 * 2017, chapter 17; the bound for some failures is that of C. J. Clopper and E. S. Pearson, Biometrika 26 (1934).
 */
final readonly class ZeroFailure
{
    /** From so many rows on drawing without putting back is as drawing from any number. */
    private const MANY = 1_000_000;

    private const STEPS = 60;

    /**
     * @param  float  $confidence  between 0 and 1
     * @param  float  $share  of wrong rows that is to be ruled out, between 0 and 1
     */
    public function __construct(private float $confidence, private float $share) {}

    /**
     * @param  int  $rows  of which is drawn
     * @return int rows to be drawn; all of them, where they are few
     */
    public function size(int $rows): int
    {
        if ($rows === 0) {
            return 0;
        }
        $ofAny = (int) ceil(log(1 - $this->confidence) / log(1 - $this->share));
        if ($rows >= self::MANY) {
            return $ofAny;
        }
        // Hypergeometric: of so many rows at least so many are wrong, if the share is; the chance to meet none falls with each draw.
        $wrong = max(1, (int) ceil($this->share * $rows));
        $chance = 1.0;
        for ($drawn = 0; $drawn < $rows && $chance > 1 - $this->confidence; $drawn++) {
            $chance *= max(0, $rows - $wrong - $drawn) / ($rows - $drawn);
        }

        return min($drawn, $ofAny);
    }

    /**
     * @param  int  $looked  rows that were looked at
     * @param  int  $wrong  of them
     * @return float the share of wrong rows of which there are fewer, with the confidence: from 0 to 1
     */
    public function bound(int $looked, int $wrong): float
    {
        if ($looked === 0 || $wrong >= $looked) {
            return 1.0;
        }
        [$low, $high] = [$wrong / $looked, 1.0];
        for ($step = 0; $step < self::STEPS; $step++) {
            $share = ($low + $high) / 2;
            if (self::chanceOfAtMost($wrong, $looked, $share) > 1 - $this->confidence) {
                $low = $share;
            } else {
                $high = $share;
            }
        }

        return $high;
    }

    private static function chanceOfAtMost(int $wrong, int $of, float $share): float
    {
        // By logarithms: of many rows the single chances are smaller than a number can be.
        $log = $of * log1p(-min($share, 1 - PHP_FLOAT_EPSILON));
        $sum = exp($log);
        for ($met = 1; $met <= $wrong; $met++) {
            $log += log(($of - $met + 1) / $met) + log($share) - log1p(-min($share, 1 - PHP_FLOAT_EPSILON));
            $sum += exp($log);
        }

        return $sum;
    }
}
