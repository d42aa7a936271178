<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Profile\ColumnDifference;
use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\ValueDistribution;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** @phpstan-import-type Column from ValueDistribution */
final class ColumnDifferenceTest extends TestCase
{
    /**
     * @param  list<string>|null  $source
     * @param  list<string>|null  $target
     * @param  list<array{string, string|null, string|null}>  $facts
     */
    #[DataProvider('columns')]
    public function test_says_what_differs_between_two_columns_the_weightiest_first(?array $source, ?array $target, array $facts): void
    {
        $found = ColumnDifference::of($this->profile($source), $this->profile($target), isMasked: false);

        self::assertSame($facts, array_map(static fn(array $fact): array => array_values($fact), $found->facts));
        self::assertSame($facts === [], $found->weight === 0.0);
    }

    /** @return iterable<string, array{list<string>|null, list<string>|null, list<array{string, string|null, string|null}>}> */
    public static function columns(): iterable
    {
        yield 'a column that only one side has' => [['1'], null, [['only', '', null]]];
        yield 'more blanks' => [['a', 'b', 'c'], ['a', '', ''], [['blank', '0', '2'], ['values', 'b, c', null]]];
        yield 'values that only one side has' => [['A', 'B'], ['A', 'X'], [['values', 'B', 'X']]];
        yield 'shorter there' => [
            ['Kingfisher', 'Heron'],
            ['Kingfi', 'Heron'],
            [['values', 'Kingfisher', 'Kingfi'], ['shorter', '10', '6']],
        ];
        yield 'another kind' => [['1.5', '2'], ['1.5', 'two'], [['kind', 'number', 'text'], ['values', '2', 'two']]];
        $numbers = array_map(strval(...), range(1, 40));
        yield 'the highest and the sum' => [
            $numbers,
            [...array_slice($numbers, 0, 39), '400'],
            [['sum', '820', '1180'], ['highest', '40', '400']],
        ];
        $days = array_map(static fn(int $day): string => sprintf('2024-01-%02d', $day), range(1, 28));
        $daysThere = array_map(static fn(int $day): string => sprintf('%02d/01/2024', $day), range(1, 28));
        yield 'the same days in another form' => [$days, $daysThere, [['form', null, null]]];
        yield 'nothing' => [$numbers, array_reverse($numbers), []];
    }

    public function test_a_masked_column_tells_no_value(): void
    {
        $found = ColumnDifference::of($this->profile(['A', '7']), $this->profile(['B', '']), isMasked: true);

        self::assertSame([['fact' => 'blank', 'source' => '0', 'target' => '1']], $found->facts);
    }

    /**
     * @param  list<string>|null  $values
     * @return Column|null
     */
    private function profile(?array $values): ?array
    {
        if ($values === null) {
            return null;
        }
        $column = new ColumnProfile('v');
        array_map($column->see(...), $values);

        return $column->toArray();
    }
}
