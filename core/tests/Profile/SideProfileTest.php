<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Profile\DistinctBudget;
use NineTally\Core\Profile\DistinctCount;
use NineTally\Core\Profile\SideProfile;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\TestCase;

final class SideProfileTest extends TestCase
{
    use TemporaryFiles;

    public function test_says_what_each_column_holds(): void
    {
        $profile = SideProfile::of($this->reader("berth,fee,seen,open,holder\n014,10.50,2027-01-05,Y,Ann Lee\n015,9,05/02/2027,N,Bo\u{200B}\nA16,,2027-03-01,Y,\nbad\n", 'old.csv'))->toArray();

        self::assertSame(['read' => 4, 'refused' => 1, 'delivered' => 3], $profile['rows']);
        self::assertSame(['text', 'number', 'date', 'yes-no', 'text'], array_column($profile['columns'], 'kind'));
        self::assertSame([0, 1, 0, 0, 1], array_column($profile['columns'], 'blank'));
        self::assertSame([3, 2, 3, 2, 2], array_column($profile['columns'], 'distinct'));
        self::assertSame([0, 0, 0, 0, 1], array_column($profile['columns'], 'invisible'));
        self::assertSame([['014', 'A16'], ['9', '10.50'], ['2027-01-05', '2027-03-01']], array_slice(array_column($profile['columns'], 'range'), 0, 3));
        self::assertSame([['shape' => '9', 'count' => 2], ['shape' => 'A9', 'count' => 1]], $profile['columns'][0]['shapes']);
        self::assertSame(['value' => 'Y', 'count' => 2], ((array) $profile['columns'][3]['most_frequent'])[0]);
    }

    public function test_distinct_values_are_exact_up_to_a_limit_and_then_an_estimate_that_says_so(): void
    {
        $distinct = new DistinctCount(new DistinctBudget);
        for ($value = 1; $value <= 130_000; $value++) {
            $distinct->see("berth {$value}");
            $value === 100_000 && self::assertSame([true, 100_000], [$distinct->isExact(), $distinct->count()]);
        }

        self::assertFalse($distinct->isExact());
        // Three standard errors of 1.6 %.
        self::assertEqualsWithDelta(130_000, $distinct->count(), 130_000 * 0.049);
    }

    public function test_all_columns_together_hold_no_more_than_their_budget(): void
    {
        $budget = new DistinctBudget(10_000);
        $counts = [new DistinctCount($budget), new DistinctCount($budget)];
        for ($value = 0; $value < 200; $value++) {
            $counts[$value % 2]->see("value {$value}");
        }

        self::assertSame([false, false], array_map(static fn(DistinctCount $count): bool => $count->isExact(), $counts));
        self::assertEqualsWithDelta(100, $counts[0]->count(), 5);
    }

    public function test_sums_lengths_likely_blank_tokens_and_the_evidence_for_the_kind(): void
    {
        $columns = SideProfile::of($this->reader("fee,paid\n1.10,NULL\n2.205,2027-01-02\n,00.00.0000\n3,\"a\nb\"\n", 'old.csv'))->toArray()['columns'];

        self::assertSame(['6.305', 'all 3 values can be read so', [1, 5]], [$columns[0]['sum'], $columns[0]['evidence'], $columns[0]['bytes']]);
        self::assertSame(['text', '3 of 4 values are no date', 1], [$columns[1]['kind'], $columns[1]['evidence'], $columns[1]['line_ends']]);
        self::assertEqualsCanonicalizing([['value' => 'NULL', 'count' => 1], ['value' => '00.00.0000', 'count' => 1]], $columns[1]['blank_tokens']);
    }

    public function test_ones_and_zeros_are_numbers_and_nothing_is_text(): void
    {
        $profile = SideProfile::of($this->reader("flag,empty\n1,\n0,\n", 'old.csv'))->toArray();

        self::assertSame(['number', 'text'], array_column($profile['columns'], 'kind'));
    }
}
