<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What each test of a cell takes, and what it leaves: blank cells, cells that are no number or no date, ends of ranges. */
final class ConditionsTest extends TestCase
{
    use Prepared;

    private const CELLS = ['', ' ', 'KB', 'kb', 'KB2', '7', '007', '7.0', '-7', 'seven', '2027-03-31', '31/03/2027', '2027-02-30'];

    /**
     * @param  array<string, mixed>  $test
     * @param  list<string>  $kept
     * @param  array<string, int>  $notes
     */
    #[DataProvider('conditions')]
    public function test_a_test_keeps(array $test, array $kept, array $notes = []): void
    {
        $prepared = $this->prepared(
            $this->preparationOf(['kind' => 'keep-rows', 'condition' => ['column' => 'cell', ...$test]]),
            ['cell'],
            array_map(static fn(string $cell): array => [$cell], self::CELLS),
        );

        self::assertSame($kept, array_column(array_slice($prepared, 1), 0));
        self::assertSame($notes, $this->figures[1]->notes);
        self::assertSame(count(self::CELLS) - count($kept), $this->figures[1]->leftOut);
    }

    /** @return iterable<string, array{0: array<string, mixed>, 1: list<string>, 2?: array<string, int>}> */
    public static function conditions(): iterable
    {
        yield 'is-blank, which a space is not' => [['test' => 'is-blank'], ['']];
        yield 'is-not-blank' => [['test' => 'is-not-blank'], array_slice(self::CELLS, 1)];
        yield 'is, byte for byte' => [['test' => 'is', 'value' => '7'], ['7']];
        yield 'is-not' => [['test' => 'is-not', 'value' => 'KB'], array_values(array_diff(self::CELLS, ['KB']))];
        yield 'contains' => [['test' => 'contains', 'value' => 'B'], ['KB', 'KB2']];
        yield 'begins-with' => [['test' => 'begins-with', 'value' => '2027'], ['2027-03-31', '2027-02-30']];
        yield 'ends-with' => [['test' => 'ends-with', 'value' => '7'], ['7', '007', '-7', '31/03/2027']];
        yield 'matches' => [['test' => 'matches', 'value' => '^[A-Z]+$'], ['KB']];
        yield 'is-one-of' => [['test' => 'is-one-of', 'values' => ['kb', '']], ['', 'kb']];
        yield 'is-not-one-of' => [['test' => 'is-not-one-of', 'values' => array_slice(self::CELLS, 1)], ['']];
        yield 'at-most, by size' => [['test' => 'at-most', 'value' => '7'], ['7', '007', '7.0', '-7'], ['no number' => 8]];
        yield 'less-than' => [['test' => 'less-than', 'value' => '7'], ['-7'], ['no number' => 8]];
        yield 'at-least' => [['test' => 'at-least', 'value' => '7.00'], ['7', '007', '7.0'], ['no number' => 8]];
        yield 'more-than' => [['test' => 'more-than', 'value' => '-7'], ['7', '007', '7.0'], ['no number' => 8]];
        yield 'on-or-after, by day, and no form is guessed' => [
            ['test' => 'on-or-after', 'value' => '2027-03-31'],
            ['2027-03-31'],
            ['no date' => 11],
        ];
        yield 'after' => [['test' => 'after', 'value' => '2027-03-31'], [], ['no date' => 11]];
        yield 'before' => [['test' => 'before', 'value' => '2027-04-01'], ['2027-03-31'], ['no date' => 11]];
    }

    public function test_a_row_is_valid_on_a_day_between_both_ends_and_a_blank_end_is_open(): void
    {
        $rows = [
            ['2027-01-01', '2027-03-31'],
            ['2027-04-01', '2027-12-31'],
            ['2027-01-01', ''],
            ['', '2027-03-31'],
            ['', ''],
            ['soon', '2027-12-31'],
        ];
        $preparation = $this->preparationOf([
            'kind' => 'keep-rows',
            'condition' => ['column' => 'from', 'test' => 'valid-on', 'until' => 'to', 'value' => '2027-03-31'],
        ]);

        self::assertSame([['from', 'to'], $rows[0], $rows[2], $rows[3], $rows[4]], $this->prepared($preparation, ['from', 'to'], $rows));
        self::assertSame(['no date' => 1], $this->figures[1]->notes);
    }

    public function test_all_and_any_nest(): void
    {
        $is = static fn(string $column, string $value): array => ['column' => $column, 'test' => 'is', 'value' => $value];
        $rows = [['KB', '1'], ['KB', '2'], ['LM', '1'], ['LM', '2']];

        self::assertSame(
            [['basin', 'berth'], $rows[1], $rows[2]],
            $this->prepared(
                $this->preparationOf([
                    'kind' => 'keep-rows',
                    'condition' => [
                        'any' => [['all' => [$is('basin', 'KB'), $is('berth', '2')]], ['all' => [$is('basin', 'LM'), $is('berth', '1')]]],
                    ],
                ]),
                ['basin', 'berth'],
                $rows,
            ),
        );
    }
}
