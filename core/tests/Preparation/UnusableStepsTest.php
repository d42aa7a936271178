<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\NoReferences;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What steps do beside their rows: what they note, leave out, and refuse. */
final class UnusableStepsTest extends TestCase
{
    use StepSamples;

    use Prepared;

    public function test_totals_of_a_group_pass_blanks_over_and_note_what_is_no_number(): void
    {
        $totals = array_map(static fn(string $total): array => ['total' => $total, 'column' => 'fee', 'into' => $total], [
            'sum',
            'lowest',
            'highest',
            'distinct',
            'first',
            'last',
        ]);
        $fees = ['KB' => ['', '0.10', 'n/a', '0.2', '0.10', '-3', ''], 'LM' => ['n/a'], 'NQ' => ['']];
        $rows = [];
        foreach ($fees as $basin => $ofBasin) {
            $rows = [...$rows, ...array_map(static fn(string $fee): array => [$basin, $fee], $ofBasin)];
        }

        $made = $this->prepared(
            $this->preparationOf(['kind' => 'group-rows', 'by' => ['basin'], 'totals' => $totals]),
            ['basin', 'fee'],
            $rows,
        );

        self::assertSame(
            [['KB', '-2.6', '-3', '0.2', '4', '0.10', '-3'], ['LM', '', '', '', '1', 'n/a', 'n/a'], ['NQ', '', '', '', '0', '', '']],
            array_slice($made, 1),
        );
        self::assertSame(['no number' => 6], $this->figures[1]->notes);
    }

    public function test_what_is_left_out_is_shown_as_it_came_into_the_step(): void
    {
        $this->prepared(
            $this->preparationOf(
                ['kind' => 'leave-out-columns', 'columns' => ['berth']],
                ['kind' => 'leave-out-rows', 'condition' => ['column' => 'paid', 'test' => 'is-blank'], 'reason' => 'never paid'],
            ),
            self::COLUMNS,
            self::ROWS,
        );

        self::assertSame([[2, [' kb ', 'n/a', '']], [4, ['', '', '']]], $this->leftOut);
    }

    /** @param array<string, mixed> $step */
    #[DataProvider('unusable')]
    public function test_a_step_that_does_not_fit_says_where_and_what_is_near(array $step, string $message): void
    {
        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage($message);
        $this->prepared(
            $this->preparationOf(['kind' => 'leave-out-blank-rows'], $step),
            self::COLUMNS,
            self::ROWS,
            str_contains($message, 'There is no reference') ? new NoReferences : self::references(),
        );
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function unusable(): iterable
    {
        yield 'a name misspelt' => [
            ['kind' => 'leave-out-columns', 'columns' => ['Bassin']],
            'Step 2 of the side (Leave out the column Bassin): There is no column "Bassin" at this step. The nearest is "basin".',
        ];
        yield 'a name that is taken' => [
            ['kind' => 'columns-into-rows', 'columns' => ['fee'], 'namesInto' => 'basin', 'valuesInto' => 'v'],
            'There is a column "basin" already at this step.',
        ];
        yield 'a pattern that is none' => [
            ['kind' => 'tidy-text', 'columns' => ['fee'], 'actions' => [['action' => 'replace-pattern', 'find' => '(', 'with' => '']]],
            '"(" is no pattern',
        ];
        yield 'a pattern without end' => [
            [
                'kind' => 'tidy-text',
                'columns' => ['fee'],
                'actions' => [
                    ['action' => 'pad-zeros', 'length' => 300],
                    ['action' => 'replace-pattern', 'find' => '(0|00)+[^0-9.,]$', 'with' => ''],
                ],
            ],
            'takes too long',
        ];
        yield 'a reference that is not there' => [
            [
                'kind' => 'look-up',
                'reference' => 'basins',
                'on' => [['column' => 'basin', 'reference' => 'code']],
                'take' => [['reference' => 'name', 'into' => 'n']],
            ],
            'There is no reference "basins".',
        ];
        yield 'several records, with their rows' => [
            [
                'kind' => 'look-up',
                'reference' => 'basins',
                'on' => [['column' => 'basin', 'reference' => 'code']],
                'take' => [['reference' => 'name', 'into' => 'n']],
            ],
            '"LM" finds 2 records of the reference "basins": row 2 (LM, Lime Mere); row 3 (LM, Long Mere). Say at the step which of them '.
                'is taken, or look up by more columns.',
        ];
        yield 'a parameter without a value' => [
            ['kind' => 'keep-rows', 'condition' => ['column' => 'paid', 'test' => 'after', 'parameter' => 'rehearsal']],
            'The tally has no parameter "rehearsal".',
        ];
        yield 'nothing left' => [['kind' => 'leave-out-columns', 'columns' => self::COLUMNS], 'It leaves no column.'];
    }
}
