<?php

declare(strict_types=1);

namespace NineTally\Tests\Profile;

use NineTally\Core\Profile\ColumnProfile;
use NineTally\Core\Profile\DistinctBudget;
use NineTally\Core\Profile\DistinctCount;
use NineTally\Core\Profile\SideProfile;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class SideProfileTest extends TestCase
{
    use TemporaryFiles;

    public function test_says_what_each_column_holds(): void
    {
        $profile = SideProfile::of(
            $this->reader(
                "berth,fee,seen,open,holder\n014,10.50,2027-01-05,Y,Ann Lee\n015,9,2027-02-05,N,Bo\u{200B}\nA16,,2027-03-01,Y,\nbad\n",
                'old.csv',
            ),
        )->toArray();

        self::assertSame(['read' => 4, 'refused' => 1, 'delivered' => 3], $profile['rows']);
        self::assertSame(['text', 'number', 'date', 'yes-no', 'text'], array_column($profile['columns'], 'kind'));
        self::assertSame([0, 1, 0, 0, 1], array_column($profile['columns'], 'blank'));
        self::assertSame([3, 2, 3, 2, 2], array_column($profile['columns'], 'distinct'));
        self::assertSame([0, 0, 0, 0, 1], array_column($profile['columns'], 'invisible'));
        self::assertSame(
            [['014', 'A16'], ['9', '10.50'], ['2027-01-05', '2027-03-01']],
            array_slice(array_column($profile['columns'], 'range'), 0, 3),
        );
        self::assertSame([['shape' => '999', 'count' => 2], ['shape' => 'A99', 'count' => 1]], $profile['columns'][0]['shapes']);
        self::assertSame(['value' => 'Y', 'count' => 2], ((array) $profile['columns'][3]['most_frequent'])[0]);
    }

    /** In blocks, values that are alike are seen once; one by one, each is: the plain way, which says the same. */
    public function test_a_column_that_is_seen_in_blocks_is_the_one_that_was_seen_value_by_value(): void
    {
        mt_srand(20_261_130);
        $columns = [
            static fn(): string => ['', '12.50', '012.5', '-12.5', '+3', '1e3', '12.', '.5', '9'][mt_rand(0, 8)],
            static fn(): string => (string) (mt_rand(0, 99_999) / 100),
            static fn(): string => date('Y-m-d', mt_rand(0, 2_000_000_000)).['', ' 00:00', 'T12:30:01.5'][mt_rand(0, 2)],
            static fn(): string => ['Y', 'no', 'n/a', ' ', "KB\u{200B}7", "two\nlines", 'Thornøy', str_repeat('é1', 150)][mt_rand(0, 7)],
            static fn(): string => str_repeat('9', mt_rand(15, 25)).'.'.mt_rand(1, 9),
            static fn(): string => 'AB-'.mt_rand(0, 3_000),
        ];
        foreach ($columns as $place => $value) {
            $values = array_map($value, range(1, 4_000));
            $inBlocks = new ColumnProfile('v');
            array_map($inBlocks->seeAll(...), array_chunk($values, mt_rand(1, 900)));
            $oneByOne = new ColumnProfile('v');
            array_map($oneByOne->see(...), $values);

            self::assertSame($oneByOne->toArray(), $inBlocks->toArray(), "column {$place}");
        }
    }

    /**
     * @param  list<string>  $values
     * @param  list<array<string, mixed>>  $forms
     * @param  array{string, string}|null  $range
     */
    #[DataProvider('columns')]
    public function test_a_form_is_proposed_from_the_whole_column_and_never_from_a_cell(
        array $values,
        string $kind,
        array $forms,
        ?array $range,
    ): void {
        $column = new ColumnProfile('v');
        array_map($column->see(...), $values);
        $profile = $column->toArray();

        self::assertSame([$kind, $forms, $range], [$profile['kind'], $profile['forms'], $profile['range']]);
    }

    /** @return iterable<string, array{list<string>, string, list<array<string, mixed>>, array{string, string}|null}> */
    public static function columns(): iterable
    {
        yield 'one value proves that the month comes first' => [
            ['03/04/2024', '12/31/2024', '01/05/2024'],
            'date',
            [['dateForms' => ['MM/dd/yyyy']]],
            ['01/05/2024', '12/31/2024'],
        ];
        yield 'nothing proves either' => [
            ['03/04/2024', '01/05/2024'],
            'date',
            [['dateForms' => ['dd/MM/yyyy']], ['dateForms' => ['MM/dd/yyyy']]],
            null,
        ];
        yield 'one digit or two' => [['3/4/2024', '31/12/2024'], 'date', [['dateForms' => ['d/M/yyyy']]], ['3/4/2024', '31/12/2024']];
        yield 'with a time' => [
            ['31.12.2024 10:15', '01.02.2024 00:00'],
            'date-time',
            [['dateForms' => ['dd.MM.yyyy HH:mm']]],
            ['01.02.2024 00:00', '31.12.2024 10:15'],
        ];
        yield 'a month by its name' => [
            ['3 Mar 2024', '12 Dec 2023'],
            'date',
            [['dateForms' => ['d MMM yyyy']]],
            ['12 Dec 2023', '3 Mar 2024'],
        ];
        yield 'two forms in one column' => [
            ['31/12/2024', '30/12/2024', '2024-12-29'],
            'date',
            [['dateForms' => ['dd/MM/yyyy', 'yyyy-MM-dd']]],
            ['2024-12-29', '31/12/2024'],
        ];
        yield 'two forms, and a day that one of them settles for both' => [
            ['03/04/2024', '5.6.2024', '31.12.2024'],
            'date',
            [['dateForms' => ['d.M.yyyy', 'dd/MM/yyyy']]],
            ['03/04/2024', '31.12.2024'],
        ];
        yield 'years of two digits' => [
            ['12-Jun-98', '3-Dec-01'],
            'date',
            [['dateForms' => ['d-MMM-yy'], 'twoDigitYearsFrom' => 1950]],
            ['12-Jun-98', '3-Dec-01'],
        ];
        yield 'months in German' => [
            ['3. März 2024', '12. Dez. 2023'],
            'date',
            [['dateForms' => ['d. MMM yyyy']]],
            ['12. Dez. 2023', '3. März 2024'],
        ];
        yield 'months in Spanish, with words between' => [
            ['3 de marzo de 2024'],
            'date',
            [['dateForms' => ["d 'de' MMM 'de' yyyy"]]],
            ['3 de marzo de 2024', '3 de marzo de 2024'],
        ];
        yield 'a time of twelve hours with its offset' => [
            ['12/31/2024 1:05 PM +01:00'],
            'date-time',
            [['dateForms' => ['MM/dd/yyyy h:mm a XXX']]],
            ['12/31/2024 1:05 PM +01:00', '12/31/2024 1:05 PM +01:00'],
        ];
        yield 'eight digits are a number' => [['20240131', '20231201'], 'number', [], ['20231201', '20240131']];
        yield 'a currency' => [['£1,200.50', '£7'], 'number', [['groupMark' => ',', 'currency' => '£']], null];
        yield 'a currency behind, and a decimal comma' => [
            ["1.200,50\u{A0}€", '7,00 €'],
            'number',
            [['decimalMark' => ',', 'groupMark' => '.', 'currency' => '€']],
            null,
        ];
        yield 'two currencies' => [['£1,200.50', '€7'], 'text', [], ['£1,200.50', '€7']];
        yield 'negative amounts in parentheses' => [['(12.50)', '7'], 'number', [['negatives' => 'parentheses']], null];
        yield 'a minus behind' => [['12,50-', '7,00'], 'number', [['decimalMark' => ',', 'negatives' => 'minus-behind']], null];
        yield 'percent: nobody can tell whether it is 5 or 0.05' => [
            ['5 %', '12.5 %'],
            'number',
            [['percent' => 'number'], ['percent' => 'share']],
            null,
        ];
        yield 'thin spaces' => [["1\u{2009}200,5"], 'number', [['decimalMark' => ',', 'groupMark' => ' ']], null];
        yield 'yes and no in German' => [['Ja', 'Nein'], 'yes-no', [['yes' => ['Ja'], 'no' => ['Nein']]], null];
        yield 'yes alone is a word' => [['Ja'], 'text', [], ['Ja', 'Ja']];
        yield 'a value that fits no form' => [['31/12/2024', '31/31/2024'], 'text', [], ['31/12/2024', '31/31/2024']];
        yield 'a decimal comma' => [['9,5', '12', '1207,25'], 'number', [['decimalMark' => ',']], null];
        yield 'with points between the thousands' => [
            ['9,5', '1.207,25', '1.207'],
            'number',
            [['decimalMark' => ',', 'groupMark' => '.']],
            null,
        ];
        yield 'commas between the thousands' => [['9.5', '1,207.25', '7'], 'number', [['groupMark' => ',']], null];
        yield 'nobody can tell which comma it is' => [
            ['1,234', '5,678', '7'],
            'number',
            [['groupMark' => ','], ['decimalMark' => ',']],
            null,
        ];
        yield 'plain' => [['9.5', '1207.25', '1e3'], 'number', [], ['9.5', '1207.25']];
        yield 'no numbers' => [['9,5', 'n. a.', '7'], 'text', [], ['7', 'n. a.']];
    }

    public function test_what_nearly_all_values_could_be_is_told_with_how_many_could_not(): void
    {
        $column = new ColumnProfile('paid');
        for ($day = 1; $day <= 28; $day++) {
            $column->see(sprintf('%02d.11.2026', $day));
        }
        array_map($column->see(...), ['20261201', 'soon', 'NULL', 'NULL']);

        self::assertSame('text', $column->toArray()['kind']);
        self::assertSame(
            [['kind' => 'date', 'declares' => ['dateForms' => ['dd.MM.yyyy', 'yyyyMMdd']], 'unread' => 1, 'isWeak' => false]],
            $column->toArray()['readings'],
        );
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
        $columns = SideProfile::of($this->reader("fee,paid\n1.10,NULL\n2.205,2027-01-02\n,00.00.0000\n3,\"a\nb\"\n", 'old.csv'))->toArray()[
            'columns'
        ];

        self::assertSame(
            ['6.305', 'all 3 values can be read so', [1, 5]],
            [$columns[0]['sum'], $columns[0]['evidence'], $columns[0]['bytes']],
        );
        self::assertSame(
            ['text', '3 of 4 values are no date', 1],
            [$columns[1]['kind'], $columns[1]['evidence'], $columns[1]['line_ends']],
        );
        self::assertEqualsCanonicalizing(
            [['value' => 'NULL', 'count' => 1], ['value' => '00.00.0000', 'count' => 1]],
            $columns[1]['blank_tokens'],
        );
    }

    public function test_ones_and_zeros_are_numbers_and_nothing_is_text(): void
    {
        $profile = SideProfile::of($this->reader("flag,empty\n1,\n0,\n", 'old.csv'))->toArray();

        self::assertSame(['number', 'text'], array_column($profile['columns'], 'kind'));
    }
}
