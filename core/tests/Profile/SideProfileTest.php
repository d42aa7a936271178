<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

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

    public function test_counts_distinct_values_up_to_a_limit_and_says_when_there_are_more(): void
    {
        $profile = SideProfile::of($this->reader("berth,basin\n".implode('', array_map(static fn(int $row): string => "{$row},KB\n", range(1, 10_001))), 'old.csv'))->toArray();

        self::assertSame([null, 1], array_column($profile['columns'], 'distinct'));
    }

    public function test_ones_and_zeros_are_numbers_and_nothing_is_text(): void
    {
        $profile = SideProfile::of($this->reader("flag,empty\n1,\n0,\n", 'old.csv'))->toArray();

        self::assertSame(['number', 'text'], array_column($profile['columns'], 'kind'));
    }
}
