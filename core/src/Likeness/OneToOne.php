<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

use NineTally\Core\Likeness\Assignment\Auction;
use NineTally\Core\Likeness\Assignment\Hungarian;

/**
 * Which candidates are taken for one row, each row once, so that the scores of all pairs together are highest: exactly where up to 400 rows
 * of a side hang together by their candidates, and very nearly beyond.
 */
final readonly class OneToOne
{
    private const EXACT = 400;

    /**
     * @param  list<NearPair>  $pairs  in the order of the source
     * @param  int  $approximate  rows of the source that hang together with too many others to be solved exactly
     */
    private function __construct(public array $pairs, public int $approximate) {}

    /** @param array<int, list<array{int, float}>> $candidates by row of the source: rows of the target and scores */
    public static function of(array $candidates): self
    {
        $pairs = [];
        $approximate = 0;
        foreach (self::together($candidates) as $sources) {
            // Of these rows alone, for there are as many sets as rows: to look through all candidates for each would take their square.
            $among = $targets = [];
            foreach ($sources as $source) {
                $among[$source] = $candidates[$source];
                $targets += array_column($candidates[$source], 0, 0);
            }
            $isExact = max(count($sources), count($targets)) <= self::EXACT;
            $approximate += $isExact ? 0 : count($sources);
            $pairs += match (true) {
                $isExact => Hungarian::assigned($among),
                default => Auction::assigned($among),
            };
        }
        ksort($pairs);

        return new self(self::withRivals($pairs, $candidates), $approximate);
    }

    /**
     * @param  array<int, int>  $pairs  source => target
     * @param  array<int, list<array{int, float}>>  $candidates
     * @return list<NearPair>
     */
    private static function withRivals(array $pairs, array $candidates): array
    {
        /** @var array<int, array{float, int, float}> $best of each target: its best score, whose that is, and the best of any other */
        $best = [];
        foreach ($candidates as $source => $some) {
            foreach ($some as [$target, $score]) {
                $known = $best[$target] ?? [0.0, -1, 0.0];
                $best[$target] = $score > $known[0] ? [$score, $source, $known[0]] : [$known[0], $known[1], max($known[2], $score)];
            }
        }
        $told = [];
        foreach ($pairs as $source => $target) {
            $score = $rival = 0.0;
            foreach ($candidates[$source] as [$other, $likeness]) {
                if ($other === $target) {
                    $score = $likeness;
                } else {
                    $rival = max($rival, $likeness);
                }
            }
            $told[] = new NearPair(
                $source,
                $target,
                $score,
                max($rival, $best[$target][1] === $source ? $best[$target][2] : $best[$target][0]),
            );
        }

        return $told;
    }

    /**
     * Rows of the source that share candidates, directly or through others (disjoint sets with path halving, Tarjan and van Leeuwen 1984).
     *
     * @param  array<int, list<array{int, float}>>  $candidates
     * @return list<non-empty-list<int>>
     */
    private static function together(array $candidates): array
    {
        /** @var array<int, int> $parents of rows of the source */
        $parents = $firstOf = [];
        $root = static function (int $row) use (&$parents): int {
            while ($parents[$row] !== $row) {
                $row = $parents[$row] = $parents[$parents[$row]];
            }

            return $row;
        };
        foreach ($candidates as $source => $some) {
            if ($some === []) {
                continue;
            }
            $parents[$source] = $source;
            foreach ($some as [$target]) {
                $firstOf[$target] ??= $source;
                [$one, $other] = [$root($source), $root($firstOf[$target])];
                $parents[max($one, $other)] = min($one, $other);
            }
        }
        $sets = [];
        foreach ($parents as $source => $_) {
            $sets[$root($source)][] = $source;
        }

        return array_values($sets);
    }
}
