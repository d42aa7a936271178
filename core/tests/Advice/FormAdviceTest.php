<?php

declare(strict_types=1);

namespace NineTally\Tests\Advice;

use NineTally\Core\Advice\BlankTokenAdvice;
use NineTally\Core\Advice\FormAdvice;
use NineTally\Core\Advice\FormProposal;
use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\PossibleReading;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/**
 * @phpstan-import-type ReadingDocument from PossibleReading
 *
 * @phpstan-type Way array{string, array<string, mixed>, array<string, mixed>, int}
 */
final class FormAdviceTest extends TestCase
{
    /**
     * @param  list<array{string, string}>  $cells
     * @param  list<Way>  $ways  kind, declared by the source and by the target, rows
     *     that agree
     * @param  list<int>  $rows
     */
    #[DataProvider('pairs')]
    public function test_both_sides_together_tell_the_form(array $cells, array $ways, array $rows): void
    {
        $advice = $this->advice($cells);

        self::assertEquals($ways, $this->ways($advice));
        self::assertSame($rows, $advice->rows ?? []);
    }

    /** @return iterable<string, array{list<array{string, string}>, list<Way>, list<int>}> */
    public static function pairs(): iterable
    {
        yield 'the other side tells which of day and month is first' => [
            [['03/04/2024', '2024-04-03'], ['05/04/2024', '2024-04-05'], ['06/06/2024', '2024-06-06'], ['', '2024-01-01']],
            [['date', ['dateForms' => ['dd/MM/yyyy']], [], 3]],
            [0, 1, 2],
        ];
        yield 'nothing tells, so it is asked' => [
            [['06/06/2024', '2024-06-06'], ['07/07/2024', '2024-07-08'], ['01/02/2024', '2025-01-01']],
            [['date', ['dateForms' => ['dd/MM/yyyy']], [], 1], ['date', ['dateForms' => ['MM/dd/yyyy']], [], 1]],
            [],
        ];
        yield 'one row tells the century, and is shown' => [
            [...array_fill(0, 99, ['12-Jun-98', 'Jun 12 1998']), ['31-Dec-46', 'Dec 31 2046']],
            [
                ['date', ['dateForms' => ['dd-MMM-yy'], 'twoDigitYearsFrom' => 1950], ['dateForms' => ['MMM dd yyyy']], 100],
                ['date', ['dateForms' => ['dd-MMM-yy'], 'twoDigitYearsFrom' => 1927], ['dateForms' => ['MMM dd yyyy']], 99],
            ],
            [99],
        ];
        yield 'no year is near the turn' => [
            [['12-Jun-98', '1998-06-12'], ['12-Jun-01', '2001-06-12']],
            [['date', ['dateForms' => ['dd-MMM-yy'], 'twoDigitYearsFrom' => 1950], [], 2]],
            [0, 1],
        ];
        yield 'percent is a share there' => [
            [['5 %', '0.05'], ['12.5 %', '0.125']],
            [['number', ['percent' => 'share'], [], 2]],
            [0, 1],
        ];
        yield 'a comma that the other side tells' => [
            [['1,234', '1.234'], ['5,678', '5.678']],
            [['number', ['decimalMark' => ','], [], 2]],
            [0, 1],
        ];
        yield 'eight digits against dates' => [
            [['20240131', '2024-01-31'], ['20240201', '2024-02-01']],
            [['date', ['dateForms' => ['yyyyMMdd']], [], 2]],
            [0, 1],
        ];
        yield 'day numbers against dates with one of a form' => [
            [['45322', '31.01.2024'], ['45323', '01.02.2024']],
            [['date', ['dateForms' => ['day-number-1900']], ['dateForms' => ['dd.MM.yyyy']], 2]],
            [0, 1],
        ];
        yield 'numbers on both sides are numbers, though they could be days' => [
            [['45322', '45322'], ['7', '7.0']],
            [['number', [], [], 2]],
            [1],
        ];
        yield 'yes and no of two languages' => [
            [['ja', 'Y'], ['nein', 'N'], ['ja', 'Y']],
            [['yes-no', ['yes' => ['ja'], 'no' => ['nein']], [], 3]],
            [0, 1, 2],
        ];
        yield 'texts' => [[['Kingfisher', 'Kingfisher'], ['7', 'Heron']], [], []];
    }

    public function test_where_no_rows_meet_the_values_of_both_sides_tell(): void
    {
        [$source, $target] = [['2.143,53', '7,00', '9,10'], ['9.1', '2143.53', '8']];
        $advice = (new FormAdvice(2026))->of($this->readings($source), $this->readings($target), [], [$source, $target]);

        self::assertEquals([['number', ['decimalMark' => ',', 'groupMark' => '.'], [], 2]], $this->ways($advice));
        self::assertFalse($advice?->isOfRows);
    }

    public function test_a_token_is_what_stands_here_where_the_other_side_is_blank(): void
    {
        $cells = [
            ...array_fill(0, 20, ['NULL', '']), ['NULL', '7'],
            ...array_fill(0, 5, ['-', 'Quay']),
            ...array_fill(0, 5, ['0', '']),
            ['?', ''],
        ];

        self::assertSame([['token' => 'NULL', 'rows' => 21, 'blank' => 20]], (new BlankTokenAdvice)->of($cells));
    }

    /** @param list<array{string, string}> $cells */
    private function advice(array $cells): ?FormProposal
    {
        [$source, $target] = [array_column($cells, 0), array_column($cells, 1)];

        return (new FormAdvice(2026))->of($this->readings($source), $this->readings($target), $cells, [$source, $target]);
    }

    /** @return list<Way> */
    private function ways(?FormProposal $advice): array
    {
        $ways = [];
        foreach ($advice->ways ?? [] as $way) {
            $ways[] = [$way->kind->value, $way->source, $way->target, $way->count()];
        }

        return $ways;
    }

    /**
     * @param  list<string>  $values
     * @return list<ReadingDocument>
     */
    private function readings(array $values): array
    {
        $column = new ColumnProfile('v');
        array_map($column->see(...), $values);

        return $column->toArray()['readings'];
    }
}
