<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\LookUpAdvice;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LookUpAdviceTest extends TestCase
{
    private const ROWS = [['KB', '014', '1', 'open'], ['LM', '2', '1', 'open'], ['kb', '2', '0', 'shut'], ['NQ', '7', '1', 'open']];

    /** @return array<string, array{list<string>, list<list<string>>, array{list<array{string, string}>, int}|null}> */
    public static function references(): array
    {
        return [
            'one column, although form keeps some values apart' => [
                ['code', 'title'],
                [['KB', 'Kelp Basin'], ['LM', 'Long Mooring'], ['NQ', 'North Quay'], ['XX', 'never used']],
                [[['basin', 'code']], 4],
            ],
            'two columns, where one finds several records' => [
                ['basin_code', 'berth_no', 'length'],
                [['KB', '14', '7'], ['KB', '2', '9'], ['LM', '2', '8'], ['NQ', '7', '5']],
                [[['basin', 'basin_code'], ['berth', 'berth_no']], 4],
            ],
            'most values are not there' => [['code', 'title'], [['LM', 'Long Mooring'], ['XX', 'never used']], null],
            'a flag of which both have a 1 leads nowhere' => [['id', 'title'], [['1', 'a'], ['5', 'b']], null],
            'no records at all' => [['code'], [], null],
        ];
    }

    /**
     * @param  list<string>  $columns
     * @param  list<list<string>>  $records
     * @param  array{list<array{string, string}>, int}|null  $expected
     */
    #[DataProvider('references')]
    public function test_the_columns_that_lead_to_one_record_are_proposed(array $columns, array $records, ?array $expected): void
    {
        $advised = (new LookUpAdvice(['basin', 'berth', 'floats', 'state'], self::ROWS))->of($columns, $records);

        self::assertSame(
            $expected,
            $advised === null ? null : [array_map(array_values(...), $advised['on']), $advised['found']],
        );
    }
}
