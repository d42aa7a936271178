<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Sampling\AgreedSample;
use NineTally\Core\Sampling\SampledRow;
use NineTally\Core\Sampling\ZeroFailure;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;

/** How many rows are looked at, which, and what is shown by what was seen. */
final class EyeCheckTest extends TestCase
{
    use Tallied;

    /** Of many rows as tables have it; of few fewer, for drawing tells more of what is left. */
    #[TestWith([0.95, 0.01, 5_000_000, 299])]
    #[TestWith([0.99, 0.001, 5_000_000, 4603])]
    #[TestWith([0.90, 0.05, 5_000_000, 45])]
    #[TestWith([0.95, 0.01, 100, 95])]
    #[TestWith([0.95, 0.01, 50, 48])]
    #[TestWith([0.95, 0.5, 3, 2])]
    #[TestWith([0.95, 0.01, 1, 1])]
    #[TestWith([0.95, 0.01, 0, 0])]
    public function test_so_many_rows_are_enough(float $confidence, float $share, int $rows, int $size): void
    {
        self::assertSame($size, (new ZeroFailure($confidence, $share))->size($rows));
    }

    public function test_what_is_seen_bounds_the_share_of_wrong_rows(): void
    {
        $check = new ZeroFailure(0.95, 0.01);

        self::assertEqualsWithDelta(1 - 0.05 ** (1 / 299), $check->bound(299, 0), 1e-9);
        // Tables of Clopper and Pearson, one-sided.
        self::assertEqualsWithDelta(0.0466, $check->bound(100, 1), 5e-5);
        self::assertEqualsWithDelta(0.3942, $check->bound(10, 1), 5e-5);
        self::assertSame([1.0, 1.0], [$check->bound(0, 0), $check->bound(3, 3)]);
    }

    public function test_rows_that_agree_are_drawn_those_by_a_rule_apart_and_the_same_seed_draws_the_same(): void
    {
        [$old, $new] = ["basin,berth,fee\n", "basin,berth,fee\n"];
        foreach (range(1, 900) as $row) {
            $old .= "KB,{$row},{$row}\n";
            // A third has another form, a third of them under a key in other letters; a ninth is another number, a few keys repeat.
            $new .= ($row % 9 === 3 ? 'kb' : 'KB').",{$row},".($row % 9 === 0 ? $row + 1 : ($row % 3 === 0 ? "{$row}.0" : $row))."\n";
        }
        $old .= "KB,1,1\nKB,2000,1\n";
        $all = $this->drawn($old, $new, 'one', 900);

        self::assertSame([599, 200], [count(array_filter($all, static fn(SampledRow $row): bool => ! $row->byRule)), count($all) - 599]);
        self::assertNotContains(['KB', '1'], array_column($all, 'key'));
        foreach ($all as $row) {
            self::assertSame([$row->byRule, false], [(int) $row->key[1] % 3 === 0, (int) $row->key[1] % 9 === 0]);
        }
        $few = $this->drawn($old, $new, 'one', 20);
        self::assertEquals([...array_slice($all, 0, 20), ...array_slice($all, 599, 20)], $few);
        self::assertNotEquals($few, $this->drawn($old, $new, 'another', 20));
        self::assertSame(
            200,
            $this->tallyOf($this->plan(), $this->reader($old, 'o.csv'), $this->reader($new, 'n.csv'))->source->agreedByRule,
        );
    }

    public function test_rows_to_which_no_key_leads_alone_are_counted_apart(): void
    {
        $old = "basin,berth,fee\nKB,1,1\nKB,1,1\nKB,2,2\nKB,3,3\nKB,4,5\nKB,4,4\n";
        $new = "basin,berth,fee\nKB,1,1.0\nKB,2,2\nLM,3,3\nKB,4,4\n";
        $plan = $this->plan()->toArray();
        $plan['sides'] = ['source' => ['repeats' => ['policy' => 'keep-first']]];
        $plan['bridges'] = [['source' => ['KB', '3'], 'target' => ['LM', '3']]];
        $plan = Plan::fromJson(CanonicalJson::of($plan));
        $summary = $this->tallyOf($plan, $this->reader($old, 'o.csv'), $this->reader($new, 'n.csv'));

        // Of the two rows of KB,1 the kept one agrees by a rule; KB,3 by its bridge; of KB,4 the kept one differs.
        self::assertSame([3, ['identical' => 1, 'byRule' => 1]], [$summary->source->agreed, $summary->source->agreedWithoutOneKey]);
        $drawn = (new AgreedSample(
            $plan,
            new Sides($this->reader($old, 'o.csv'), $this->reader($new, 'n.csv')),
            'one',
            static fn() => null,
        ))->draw(['identical' => 9, 'byRule' => 9], 6);
        self::assertSame([['KB', '2']], array_column($drawn, 'key'));
    }

    /** @return list<SampledRow> */
    private function drawn(string $old, string $new, string $seed, int $each): array
    {
        /** @var Sides<Reader> $sides */
        $sides = new Sides($this->reader($old, 'old.csv'), $this->reader($new, 'new.csv'));

        return (new AgreedSample($this->plan(), $sides, $seed, static fn() => null))->draw(['identical' => $each, 'byRule' => $each], 900);
    }

    private function plan(): Plan
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];

        return Plan::fromJson(CanonicalJson::of([
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [[...$same('basin'), 'forgives' => ['case']], $same('berth')],
            'columnPairs' => [['id' => 'pair-000000000001', ...$same('fee'), 'kind' => 'number', 'forgives' => ['number-form']]],
        ]));
    }
}
