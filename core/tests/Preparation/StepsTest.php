<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Each step on awkward rows: what comes out, what is left out, what is counted. */
final class StepsTest extends TestCase
{
    use StepSamples;

    use Prepared;

    /**
     * @param  array<string, mixed>  $step
     * @param  list<list<string>>  $expected
     * @param  array<string, int>  $notes
     */
    #[DataProvider('steps')]
    public function test_a_step(array $step, array $expected, array $notes = []): void
    {
        self::assertSame(
            $expected,
            $this->prepared($this->preparationOf($step), self::COLUMNS, self::ROWS, self::references(), ['cut-off' => '2027-02-01']),
        );
        self::assertSame($notes, $this->figures[1]->notes);
    }

    /** @return iterable<string, array{0: array<string, mixed>, 1: list<list<string>>, 2?: array<string, int>}> */
    public static function steps(): iterable
    {
        [$one, $two, $three, $four] = self::ROWS;
        yield 'keep, in this order' => [
            ['kind' => 'keep-columns', 'columns' => ['fee', 'basin']],
            [['fee', 'basin'], ['1.412,60', 'KB'], ['n/a', ' kb '], ['', 'LM'], ['', '']],
        ];
        yield 'drop' => [
            ['kind' => 'leave-out-columns', 'columns' => ['berth', 'paid']],
            [['basin', 'fee'], ['KB', '1.412,60'], [' kb ', 'n/a'], ['LM', ''], ['', '']],
        ];
        yield 'move' => [
            ['kind' => 'move-columns', 'columns' => ['paid']],
            [
                ['paid', 'basin', 'berth', 'fee'],
                ['31/03/2027', 'KB', '014', '1.412,60'],
                ['', ' kb ', '', 'n/a'],
                ['29/02/2027', 'LM', '2', ''],
                ['', '', '', ''],
            ],
        ];
        yield 'rename, two names changing places' => [
            ['kind' => 'rename-columns', 'names' => [['from' => 'basin', 'to' => 'berth'], ['from' => 'berth', 'to' => 'basin']]],
            [['berth', 'basin', 'fee', 'paid'], ...self::ROWS],
        ];
        yield 'blank rows' => [['kind' => 'leave-out-blank-rows'], [self::COLUMNS, $one, $two, $three]];
        yield 'a condition of several parts' => [
            [
                'kind' => 'keep-rows',
                'condition' => [
                    'any' => [
                        ['column' => 'basin', 'test' => 'is-one-of', 'values' => ['LM']],
                        [
                            'all' => [
                                ['column' => 'berth', 'test' => 'is-not-blank'],
                                ['column' => 'basin', 'test' => 'matches', 'value' => '^K.$'],
                            ],
                        ],
                    ],
                ],
            ],
            [self::COLUMNS, $one, $three],
        ];
        yield 'numbers: what is none meets no test' => [
            ['kind' => 'leave-out-rows', 'condition' => ['column' => 'berth', 'test' => 'at-least', 'value' => '2.0']],
            [self::COLUMNS, $two, $four],
        ];
        yield 'a date of the tally: a form that nobody declared is not read' => [
            ['kind' => 'keep-rows', 'condition' => ['column' => 'paid', 'test' => 'after', 'parameter' => 'cut-off']],
            [self::COLUMNS],
            ['no date' => 2],
        ];
        yield 'clean, one after the other' => [
            [
                'kind' => 'tidy-text',
                'columns' => ['basin', 'berth'],
                'actions' => [
                    ['action' => 'trim'],
                    ['action' => 'upper'],
                    ['action' => 'pad-zeros', 'length' => 3],
                    ['action' => 'replace-pattern', 'find' => '^(0)~?', 'with' => '#$1'],
                ],
            ],
            [self::COLUMNS, ['#0KB', '#014', '1.412,60', '31/03/2027'], ['#0KB', '', 'n/a', ''], ['#0LM', '#002', '', '29/02/2027'], $four],
        ];
        yield 'numbers with a decimal comma' => [
            ['kind' => 'read-number', 'columns' => ['fee'], 'reading' => ['decimalMark' => ',', 'groupMark' => '.']],
            [self::COLUMNS, ['KB', '014', '1412.6', '31/03/2027'], $two, $three, $four],
            ['unreadable' => 1],
        ];
        yield 'dates, one of which never was' => [
            ['kind' => 'read-date', 'columns' => ['paid'], 'reading' => ['dateForms' => ['dd/MM/yyyy']]],
            [self::COLUMNS, ['KB', '014', '1.412,60', '2027-03-31'], $two, $three, $four],
            ['unreadable' => 1],
        ];
        yield 'blanks from above' => [
            ['kind' => 'fill-blanks', 'columns' => ['basin', 'berth']],
            [self::COLUMNS, $one, [' kb ', '014', 'n/a', ''], $three, ['LM', '2', '', '']],
        ];
        yield 'split at the first separator only' => [
            ['kind' => 'split-column', 'column' => 'paid', 'separator' => '/', 'into' => ['day', 'rest']],
            [
                ['basin', 'berth', 'fee', 'day', 'rest'],
                ['KB', '014', '1.412,60', '31', '03/2027'],
                [' kb ', '', 'n/a', '', ''],
                ['LM', '2', '', '29', '02/2027'],
                ['', '', '', '', ''],
            ],
        ];
        yield 'split by a pattern, keeping' => [
            ['kind' => 'split-column', 'column' => 'berth', 'pattern' => '^0(\d)', 'into' => ['first'], 'keep' => true],
            [
                ['basin', 'berth', 'first', 'fee', 'paid'],
                ['KB', '014', '1', '1.412,60', '31/03/2027'],
                [' kb ', '', '', 'n/a', ''],
                ['LM', '2', '', '', '29/02/2027'],
                ['', '', '', '', ''],
            ],
            ['pattern not found' => 1],
        ];
        yield 'split by lengths, in letters: the last part takes the rest' => [
            ['kind' => 'split-column', 'column' => 'paid', 'lengths' => [2, 1], 'into' => ['day', 'mark', 'rest']],
            [
                ['basin', 'berth', 'fee', 'day', 'mark', 'rest'],
                ['KB', '014', '1.412,60', '31', '/', '03/2027'],
                [' kb ', '', 'n/a', '', '', ''],
                ['LM', '2', '', '29', '/', '02/2027'],
                ['', '', '', '', '', ''],
            ],
        ];
        yield 'join without blanks' => [
            ['kind' => 'join-columns', 'columns' => ['berth', 'basin'], 'with' => '/', 'into' => 'place', 'skipBlanks' => true],
            [['place', 'fee', 'paid'], ['014/KB', '1.412,60', '31/03/2027'], [' kb ', 'n/a', ''], ['2/LM', '', '29/02/2027'], ['', '', '']],
        ];
        yield 'fold without blanks' => [
            [
                'kind' => 'columns-into-rows',
                'columns' => ['fee', 'paid'],
                'namesInto' => 'what',
                'valuesInto' => 'value',
                'keepBlanks' => false,
            ],
            [
                ['basin', 'berth', 'what', 'value'],
                ['KB', '014', 'fee', '1.412,60'],
                ['KB', '014', 'paid', '31/03/2027'],
                [' kb ', '', 'fee', 'n/a'],
                ['LM', '2', 'paid', '29/02/2027'],
            ],
        ];
        yield 'crosswalk' => [
            ['kind' => 'crosswalk', 'column' => 'basin', 'entries' => [['source' => 'KB', 'target' => 'Kestrel Broad']]],
            [self::COLUMNS, ['Kestrel Broad', ...array_slice($one, 1)], $two, $three, $four],
            ['without entry' => 2],
        ];
        yield 'look up: no record, found but blank, more than one' => [
            [
                'kind' => 'look-up',
                'reference' => 'basins',
                'on' => [['column' => 'basin', 'reference' => 'code']],
                'take' => [['reference' => 'name', 'into' => 'basin_name']],
                'several' => 'blank',
                'outcome' => 'record',
            ],
            [
                [...self::COLUMNS, 'basin_name', 'record'],
                [...$one, 'Kestrel Broad', 'found'],
                [...$two, '', 'without a record'],
                [...$three, '', 'more than one record'],
                [...$four, '', 'blank key'],
            ],
            ['found a record' => 2, 'without a record' => 1, 'more than one record' => 1, 'blank key' => 1],
        ];
        yield 'look up by band' => [
            [
                'kind' => 'look-up-band',
                'reference' => 'bands',
                'column' => 'berth',
                'from' => 'from',
                'until' => 'until',
                'take' => [['reference' => 'band', 'into' => 'band']],
            ],
            [[...self::COLUMNS, 'band'], [...$one, 'long'], [...$two, ''], [...$three, ''], [...$four, '']],
            ['bands overlap' => 1, 'found a record' => 1, 'below every band' => 1],
        ];
        $look = [
            'kind' => 'look-up',
            'reference' => 'basins',
            'on' => [['column' => 'basin', 'reference' => 'code']],
            'take' => [['reference' => 'name', 'into' => 'n']],
        ];
        yield 'look up, the last of several, by a key that forgives' => [
            [...$look, 'several' => 'last', 'forgives' => ['spacing', 'case']],
            [[...self::COLUMNS, 'n'], [...$one, 'Kestrel Broad'], [...$two, 'Kestrel Broad'], [...$three, 'Long Mere'], [...$four, '']],
            ['found a record' => 3, 'found by a form that the key forgives' => 1, 'more than one record' => 1, 'blank key' => 1],
        ];
        $bring = ['kind' => 'bring-in-records'] + $look;
        yield 'bring in records: rows without one stay' => [
            $bring,
            [
                [...self::COLUMNS, 'n'],
                [...$one, 'Kestrel Broad'],
                [...$two, ''],
                [...$three, 'Lime Mere'],
                [...$three, 'Long Mere'],
                [...$four, ''],
            ],
            ['found a record' => 2, 'without a record' => 1, 'blank key' => 1],
        ];
        yield 'bring in records: rows without one go' => [
            [...$bring, 'without' => 'leave-out'],
            [[...self::COLUMNS, 'n'], [...$one, 'Kestrel Broad'], [...$three, 'Lime Mere'], [...$three, 'Long Mere']],
            ['found a record' => 2, 'without a record' => 1, 'blank key' => 1],
        ];
        yield 'bring in records: rows without one are listed' => [
            [...$bring, 'without' => 'list'],
            [
                [...self::COLUMNS, 'n'],
                [...$one, 'Kestrel Broad'],
                [...$two, ''],
                [...$three, 'Lime Mere'],
                [...$three, 'Long Mere'],
                [...$four, ''],
            ],
            ['found a record' => 2, 'without a record' => 1, 'kept without a record' => 2, 'blank key' => 1],
        ];
        yield 'number within a group' => [
            ['kind' => 'number-rows', 'into' => 'nth', 'by' => ['berth']],
            [[...self::COLUMNS, 'nth'], [...$one, '1'], [...$two, '1'], [...$three, '1'], [...$four, '2']],
        ];
        yield 'rank, blanks last' => [
            [
                'kind' => 'number-rows',
                'into' => 'rank',
                'order' => ['column' => 'berth', 'kind' => 'number', 'highestFirst' => true],
                'rank' => true,
            ],
            [[...self::COLUMNS, 'rank'], [...$one, '1'], [...$two, '3'], [...$three, '2'], [...$four, '3']],
        ];
        yield 'totals of a group' => [
            [
                'kind' => 'group-rows',
                'by' => ['fee'],
                'totals' => [
                    ['total' => 'count', 'into' => 'rows'],
                    ['total' => 'sum', 'column' => 'berth', 'into' => 'sum'],
                    ['total' => 'first', 'column' => 'basin', 'into' => 'first'],
                ],
            ],
            [['fee', 'rows', 'sum', 'first'], ['1.412,60', '1', '14', 'KB'], ['n/a', '1', '', ' kb '], ['', '2', '2', 'LM']],
        ];
        yield 'keep one of each' => [['kind' => 'keep-one-row', 'by' => ['fee'], 'which' => 'last'], [self::COLUMNS, $one, $two, $four]];
    }
}
