<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\CrosswalkAdvice;
use NineTally\Core\Advice\FoldAdvice;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FoldAdviceTest extends TestCase
{
    public function test_runs_of_alike_columns_are_found_the_longest_first(): void
    {
        self::assertSame(
            [['2021', '2022', '2023', '2024'], ['Jan', 'Feb.', 'März'], ['fee 1', 'fee 2', 'fee 10']],
            FoldAdvice::runs([
                'depot', 'Jan', 'Feb.', 'März', 'goods', '2021', '2022', '2023', '2024', 'fee 1', 'fee 2', 'fee 10', 'line 1', 'x',
            ]),
        );
    }

    public function test_columns_that_stand_as_rows_there_are_told_with_the_columns_they_stand_in(): void
    {
        $here = ['Depot' => ['7', '14'], 'Jan' => ['1.5', '2'], 'Feb' => ['3', '4.5'], 'Mar' => ['5', '6']];
        $there = [
            'Depot' => ['00007', '00014'],
            'Month' => ['January', 'February', 'March'],
            'Toll' => ['1,50', '2,00', '3,00', '4,50', '5', '6'],
            'Clerk' => ['A', 'B'],
        ];

        self::assertSame(
            ['columns' => ['Jan', 'Feb', 'Mar'], 'namesInto' => 'Month', 'valuesInto' => 'Toll'],
            (new FoldAdvice)->of($here, $there),
        );
        self::assertNull(
            (new FoldAdvice)->of($here, ['Depot' => ['00007'], 'Goods' => ['Coal'], 'Toll' => ['1,50']]),
            'No column has their names.',
        );
        self::assertNull((new FoldAdvice)->of($here, $there + ['Jan' => ['1'], 'Feb' => ['1']]), 'The other side has the columns too.');
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @param  array<string, string>  $entries
     */
    #[DataProvider('values')]
    public function test_values_that_tell_by_themselves_what_they_mean_there_make_a_crosswalk(
        array $source,
        array $target,
        array $entries,
    ): void {
        self::assertSame($entries, CrosswalkAdvice::entries($source, $target));
    }

    /** @return iterable<string, array{list<string>, list<string>, array<string, string>}> */
    public static function values(): iterable
    {
        yield 'months cut short' => [['Jan', 'Feb', 'May'], ['January', 'February', 'May'], ['Jan' => 'January', 'Feb' => 'February']];
        yield 'months by their number' => [['Januar', 'Februar'], ['01', '02'], ['Januar' => '01', 'Februar' => '02']];
        yield 'words that begin alike' => [['act', 'susp'], ['Active', 'Suspended'], ['act' => 'Active', 'susp' => 'Suspended']];
        yield 'a beginning of two words' => [['a', 's'], ['Active', 'Abandoned', 'Suspended'], []];
        yield 'codes that say nothing' => [['1', '2'], ['Active', 'Suspended'], []];
        yield 'nothing differs' => [['Coal'], ['Coal'], []];
    }
}
