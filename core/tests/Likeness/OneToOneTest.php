<?php

declare(strict_types=1);

namespace NineTally\Core\Tests\Likeness;

use NineTally\Core\Likeness\Assignment\Auction;
use NineTally\Core\Likeness\Assignment\Hungarian;
use NineTally\Core\Likeness\NearPair;
use NineTally\Core\Likeness\OneToOne;
use PHPUnit\Framework\TestCase;

final class OneToOneTest extends TestCase
{
    public function test_the_sum_of_scores_is_the_highest_that_there_is(): void
    {
        mt_srand(9);
        for ($round = 0; $round < 300; $round++) {
            $candidates = $this->candidates(mt_rand(1, 6), mt_rand(1, 6));
            $best = $this->bestByForce($candidates, []);
            self::assertEqualsWithDelta($best, $this->sum($candidates, Hungarian::assigned($candidates)), 1e-9, "round {$round}");
            $bid = $this->sum($candidates, Auction::assigned($candidates));
            self::assertTrue($bid <= $best + 1e-9 && $bid >= $best - 0.001 * count($candidates), "round {$round}: {$bid} of {$best}");
        }
    }

    public function test_both_ways_agree_where_too_many_hang_together(): void
    {
        mt_srand(4);
        $candidates = $this->candidates(450, 500, each: 4);
        $found = OneToOne::of($candidates);
        $exact = $this->sum($candidates, Hungarian::assigned($candidates));
        $sum = array_sum(array_map(static fn(NearPair $pair): float => $pair->score, $found->pairs));

        self::assertGreaterThan(400, $found->approximate);
        self::assertEqualsWithDelta($exact, $sum, 0.001 * 450);
        self::assertCount(count($found->pairs), array_unique(array_column($found->pairs, 'target')));
    }

    public function test_equals_stay_in_their_order_and_a_rival_is_the_best_that_either_could_have_instead(): void
    {
        $all = [[10, 0.9], [11, 0.9], [12, 0.9]];
        self::assertSame([1 => 10, 2 => 11, 3 => 12], Hungarian::assigned([1 => $all, 2 => $all, 3 => $all]));

        $found = OneToOne::of([0 => [[7, 0.95], [8, 0.6]], 1 => [[7, 0.9]], 2 => [], 3 => [[9, 0.8]]]);
        // Together 0.6 and 0.9 are more than 0.95 alone, and the margins say that both could have been otherwise.
        self::assertEquals([new NearPair(0, 8, 0.6, 0.95), new NearPair(1, 7, 0.9, 0.95), new NearPair(3, 9, 0.8, 0.0)], $found->pairs);
        self::assertSame([-0.35, -0.05, 0.8], array_map(static fn(NearPair $pair): float => round($pair->margin(), 9), $found->pairs));
    }

    /** @return array<int, list<array{int, float}>> */
    private function candidates(int $sources, int $targets, ?int $each = null): array
    {
        $candidates = [];
        for ($source = 0; $source < $sources; $source++) {
            $some = [];
            for ($left = $each ?? mt_rand(1, $targets); $left > 0; $left--) {
                $some[mt_rand(0, $targets - 1)] = mt_rand(500, 1_000) / 1_000;
            }
            $candidates[$source] = array_map(static fn(int $target, float $score): array => [$target, $score], array_keys($some), $some);
        }

        return $candidates;
    }

    /**
     * @param  array<int, list<array{int, float}>>  $candidates
     * @param  array<int, true>  $taken
     */
    private function bestByForce(array $candidates, array $taken): float
    {
        if ($candidates === []) {
            return 0.0;
        }
        $first = array_key_first($candidates);
        $rest = array_diff_key($candidates, [$first => true]);
        $best = $this->bestByForce($rest, $taken);
        foreach ($candidates[$first] as [$target, $score]) {
            if (! isset($taken[$target])) {
                $best = max($best, $score + $this->bestByForce($rest, $taken + [$target => true]));
            }
        }

        return $best;
    }

    /**
     * @param  array<int, list<array{int, float}>>  $candidates
     * @param  array<int, int>  $pairs
     */
    private function sum(array $candidates, array $pairs): float
    {
        self::assertCount(count($pairs), array_unique($pairs));
        $sum = 0.0;
        foreach ($pairs as $source => $target) {
            $sum += array_column($candidates[$source], 1, 0)[$target] ?? self::fail("{$source} and {$target} are no candidates.");
        }

        return $sum;
    }
}
