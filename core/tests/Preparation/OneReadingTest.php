<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Repeats\Decider;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\ValueOrder;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * What a side, or a column, declares holds in every step, condition, order and policy, by one and the same reading.
 *
 * @phpstan-import-type Declared from \NineTally\Core\Value\DeclaredReading
 */
final class OneReadingTest extends TestCase
{
    use Prepared;

    private const DECLARED = ['blankTokens' => ['NULL'], 'decimalMark' => ',', 'dateForms' => ['M/d/yyyy']];

    private const COLUMNS = ['n', 'd'];

    private const ROWS = [['9,5', '1/5/2024'], ['12,5', '2/1/2024'], ['NULL', '4/3/2024'], ['7', 'NULL'], ['6.5', '2024-03-04']];

    /**
     * @param  array<string, mixed>  $step
     * @param  list<list<string>>  $expected
     * @param  array<string, int>  $notes
     */
    #[DataProvider('steps')]
    public function test_a_step_reads_what_the_side_declares(array $step, array $expected, array $notes = []): void
    {
        $made = $this->prepared($this->under(self::DECLARED, [], $step), self::COLUMNS, self::ROWS);

        self::assertSame($expected, array_slice($made, 1));
        self::assertSame($notes, $this->figures[1]->notes);
    }

    /** @return iterable<string, array{0: array<string, mixed>, 1: list<list<string>>, 2?: array<string, int>}> */
    public static function steps(): iterable
    {
        [$nine, $twelve, $null, $seven, $point] = self::ROWS;
        $keep = static fn(string $column, string $test, ?string $value = null): array => [
            'kind' => 'keep-rows',
            'condition' => ['column' => $column, 'test' => $test] + ($value === null ? [] : ['value' => $value]),
        ];
        yield 'a test of numbers' => [$keep('n', 'at-least', '9.5'), [$nine, $twelve], ['no number' => 1]];
        yield 'whose limit is written as the column writes it' => [$keep('n', 'more-than', '9,5'), [$twelve], ['no number' => 1]];
        yield 'a test of dates' => [$keep('d', 'after', '2024-03-15'), [$null], ['no date' => 1]];
        yield 'a test of blanks' => [$keep('n', 'is-blank'), [$null]];
        yield 'and of what is there' => [$keep('d', 'is-not-blank'), [$nine, $twelve, $null, $point]];
        yield 'filling blanks' => [
            ['kind' => 'fill-blanks', 'columns' => ['n', 'd'], 'value' => '0'],
            [$nine, $twelve, ['0', '4/3/2024'], ['7', '0'], $point],
        ];
        yield 'filling from above, where a token is nothing to fill with' => [
            ['kind' => 'fill-blanks', 'columns' => ['n']],
            [$nine, $twelve, ['12,5', '4/3/2024'], $seven, $point],
        ];
        yield 'sums, written in one form' => [
            [
                'kind' => 'group-rows',
                'by' => [],
                'totals' => [
                    ['total' => 'sum', 'column' => 'n', 'into' => 'sum'],
                    ['total' => 'count', 'column' => 'n', 'into' => 'values'],
                    ['total' => 'count', 'into' => 'rows'],
                    ['total' => 'highest', 'column' => 'n', 'into' => 'most'],
                    ['total' => 'distinct', 'column' => 'd', 'into' => 'days'],
                ],
            ],
            [['29', '4', '5', '12.5', '4']],
            ['no number' => 2],
        ];
        yield 'the highest number' => [
            ['kind' => 'keep-one-row', 'by' => [], 'order' => ['column' => 'n', 'kind' => 'number', 'highestFirst' => true]],
            [$twelve],
        ];
        yield 'the latest day' => [
            ['kind' => 'keep-one-row', 'by' => [], 'order' => ['column' => 'd', 'kind' => 'date', 'highestFirst' => true]],
            [$null],
        ];
        yield 'ranks' => [
            ['kind' => 'number-rows', 'into' => 'rank', 'rank' => true, 'order' => ['column' => 'n', 'kind' => 'number']],
            [[...$nine, '2'], [...$twelve, '3'], [...$null, '4'], [...$seven, '1'], [...$point, '4']],
        ];
        yield 'a formula' => [
            ['kind' => 'compute-column', 'into' => 'twice', 'formula' => 'n * 2'],
            [[...$nine, '19'], [...$twelve, '25'], [...$null, ''], [...$seven, '14'], [...$point, '']],
            ['error' => 1],
        ];
        yield 'a formula of texts, as they were delivered' => [
            ['kind' => 'compute-column', 'into' => 'both', 'formula' => 'n ~ "/" ~ d'],
            [[...$nine, '9,5/1/5/2024'], [...$twelve, '12,5/2/1/2024'], [...$null, ''], [...$seven, ''], [...$point, '6.5/2024-03-04']],
        ];
        yield 'a formula that gives a cell on' => [
            ['kind' => 'compute-column', 'into' => 'same', 'formula' => 'n'],
            [[...$nine, '9.5'], [...$twelve, '12.5'], [...$null, ''], [...$seven, '7'], [...$point, '6.5']],
        ];
        yield 'a formula of dates' => [
            ['kind' => 'compute-column', 'into' => 'month', 'formula' => 'month(d)'],
            [[...$nine, '1'], [...$twelve, '2'], [...$null, '4'], [...$seven, ''], [...$point, '']],
            ['error' => 1],
        ];
        yield 'reading numbers, without being told once more' => [
            ['kind' => 'read-number', 'columns' => ['n']],
            [['9.5', '1/5/2024'], ['12.5', '2/1/2024'], $null, $seven, $point],
            ['unreadable' => 1],
        ];
        yield 'columns into rows, without blanks' => [
            ['kind' => 'columns-into-rows', 'columns' => ['n', 'd'], 'namesInto' => 'what', 'valuesInto' => 'value', 'keepBlanks' => false],
            [
                ['n', '9,5'],
                ['d', '1/5/2024'],
                ['n', '12,5'],
                ['d', '2/1/2024'],
                ['d', '4/3/2024'],
                ['n', '7'],
                ['n', '6.5'],
                ['d', '2024-03-04'],
            ],
        ];
        yield 'joining without blanks' => [
            ['kind' => 'join-columns', 'columns' => ['n', 'd'], 'with' => '/', 'into' => 'both', 'skipBlanks' => true],
            [['9,5/1/5/2024'], ['12,5/2/1/2024'], ['4/3/2024'], ['7'], ['6.5/2024-03-04']],
        ];
        yield 'a crosswalk of what is blank' => [
            ['kind' => 'crosswalk', 'column' => 'n', 'entries' => [['source' => '', 'target' => 'none']]],
            [$nine, $twelve, ['none', '4/3/2024'], $seven, $point],
            ['without entry' => 4],
        ];
    }

    public function test_blank_rows_are_those_of_blank_tokens_too(): void
    {
        self::assertSame(
            [['NULL', '7']],
            array_slice(
                $this->prepared($this->under(self::DECLARED, [], ['kind' => 'leave-out-blank-rows']), self::COLUMNS, [
                    ['NULL', ''],
                    ['NULL', '7'],
                    ['', ''],
                ]),
                1,
            ),
        );
    }

    /** A column is declared under the name that it has at the end; what a step has read is written in the one form from there on. */
    public function test_a_declaration_follows_its_column_through_the_steps(): void
    {
        $over = static fn(string $column, string $value): array => [
            'kind' => 'keep-rows',
            'condition' => ['column' => $column, 'test' => 'more-than', 'value' => $value],
        ];
        $steps = [
            $over('n', '8'),
            ['kind' => 'rename-columns', 'names' => [['from' => 'n', 'to' => 'fee']]],
            $over('fee', '9'),
            ['kind' => 'read-number', 'columns' => ['fee']],
            $over('fee', '10'),
            ['kind' => 'compute-column', 'into' => 'half', 'formula' => 'fee / 2'],
            $over('half', '6.2'),
        ];
        $preparation = $this->under([], ['fee' => ['decimalMark' => ',']], ...$steps);

        self::assertSame(
            [['fee', 'd', 'half'], ['12.5', '2/1/2024', '6.25']],
            $this->prepared($preparation, self::COLUMNS, [['9,5', '1/5/2024'], ['12,5', '2/1/2024'], ['7,9', '']]),
        );
        $rules = new SideRules(['decimalMark' => ','], preparation: $preparation);
        self::assertSame(
            ['125e-1', null, '625e-2', '95e-1'],
            [
                $rules->reading('fee', Kind::Number)->number('12.5')?->canonical(),
                $rules->reading('fee', Kind::Number)->number('12,5')?->canonical(),
                $rules->reading('half', Kind::Number)->number('6.25')?->canonical(),
                $rules->reading('other', Kind::Number)->number('9,5')?->canonical(),
            ],
        );
        self::assertNotSame($preparation->digest(), $this->under([], [], ...$steps)->digest(), 'Other declarations prepare otherwise.');
    }

    /**
     * @param  Declared  $declared
     * @param  list<string>  $values  the first is the one that both keep
     */
    #[DataProvider('highest')]
    public function test_a_step_and_a_policy_keep_the_same_row(Kind $kind, array $declared, array $values): void
    {
        $step = ['kind' => 'keep-one-row', 'by' => [], 'order' => ['column' => 'v', 'kind' => $kind->value, 'highestFirst' => true]];
        foreach ([$values, array_reverse($values)] as $rows) {
            $kept = new KeptRow(PolicyId::KeepHighest, [
                new Decider(0, new ValueOrder((new SideRules($declared))->reading('v', $kind)), true),
            ]);
            foreach ($rows as $line => $value) {
                $kept->see($line, $value);
            }

            self::assertSame(
                [$values[0], [$values[0]]],
                [
                    $rows[$kept->line() ?? -1],
                    $this->prepared(
                        $this->under($declared, [], $step),
                        ['v'],
                        array_map(static fn(string $value): array => [$value], $rows),
                    )[1],
                ],
            );
        }
    }

    /** @return iterable<string, array{Kind, Declared, list<string>}> */
    public static function highest(): iterable
    {
        yield 'days in a declared form' => [Kind::Date, ['dateForms' => ['MM/dd/yyyy']], ['04/03/2024', '03/12/2024', '']];
        yield 'fractions of a second' => [
            Kind::DateTime,
            [],
            ['2026-01-05T10:00:00.900Z', '2026-01-05T10:00:00.100Z', '2026-01-05T10:00:00.25Z'],
        ];
        yield 'a token is no text' => [Kind::Text, ['blankTokens' => ['N/A']], ['Aa', 'N/A', 'AB']];
        yield 'numbers with a decimal comma' => [Kind::Number, ['decimalMark' => ','], ['12,5', '9,75', 'n/a']];
        yield 'yes before no' => [Kind::YesNo, ['yes' => ['ja'], 'no' => ['nee']], ['JA', 'nee', 'yes']];
    }

    /**
     * @param  Declared  $declared
     * @param  array<string, Declared>  $columns
     * @param  array<string, mixed>  ...$steps
     */
    private function under(array $declared, array $columns, array ...$steps): Preparation
    {
        return (new SideRules($declared, $columns, preparation: $this->preparationOf(...$steps)))->preparation;
    }
}
