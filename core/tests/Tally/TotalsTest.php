<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Totals\Share;
use NineTally\Core\Totals\TotalReport;
use PHPUnit\Framework\TestCase;

/**
 * Totals of both sides by group, and the rows that make them differ. Figures are worked out by hand.
 *
 * @phpstan-import-type ShareFigures from Share
 */
final class TotalsTest extends TestCase
{
    use Tallied;

    private const FEE = ['source' => 'fee', 'target' => 'fee'];

    private const BASIN = ['source' => 'basin', 'target' => 'basin'];

    private const SUM = ['measure' => 'sum', 'source' => 'fee', 'target' => 'fee'];

    public function test_every_row_has_its_share(): void
    {
        $total = $this->totals(
            "KB,1,10.00\nKB,2,20.00\nKB,3,30.00\nKB,4,40.004\nKB,5,50\nKB,6,\nKB,7,7\nKB,8,8\nKB,8,9\n,,3\nKB,9,ten\n",
            "KB,1,10.00\nKB,2,25.50\nKB,4,40.00\nKB,5,\nKB,6,60\nLM,7,7\nKB,8,8\nKB,9,11\nKB,10,100\n",
            [self::SUM],
        )[0];

        // 177.004 and 252.50: of KB,8 no row is kept, and KB,7 has become LM,7.
        self::assertSame(['177.004', '261.500', '84.496'], [$total->all['source'], $total->all['target'], $total->all['difference']]);
        self::assertSame(
            [
                'extra' => [2, '107.000'],
                'forgiven tolerance' => [1, '-0.004'],
                'missing' => [2, '-37.000'],
                'pattern 1' => [1, '5.500'],
                'pattern 2' => [1, '-50.000'],
                'pattern 3' => [1, '60.000'],
                'pattern 4' => [1, '11.000'],
                'repeated source' => [2, '-17.000'],
                'repeated target' => [1, '8.000'],
                'unkeyed source' => [1, '-3.000'],
            ],
            $this->shares($total->all['shares']),
        );
        self::assertSame(1, $total->taken['source']['unread']);
        self::assertSame(1, $total->taken['source']['blanks']);
    }

    public function test_groups_meet_as_their_pair_says_and_what_cancels_out_is_told(): void
    {
        $totals = $this->totals(
            "KB,1,10\nKB,2,20\nKB,3,5\nLM,1,7\nUV,1,1\n",
            "kb,1,15\nkb,2,15\nkb,3,5\nLM,1,7.00\nTH,1,2\n",
            [[...self::SUM, 'by' => [self::BASIN]], ['measure' => 'rows', 'by' => [self::BASIN]]],
            ['key' => [[...self::BASIN, 'forgives' => ['case']], ['source' => 'berth', 'target' => 'berth']]],
        );

        self::assertSame(
            [
                ['TH', 'target', '0.00', '2.00', '2.00', false],
                ['UV', 'source', '1.00', '0.00', '-1.00', false],
                ['KB', null, '35.00', '35.00', '0.00', true],
                ['LM', null, '7.00', '7.00', '0.00', false],
            ],
            array_map(
                static fn(array $group): array => [
                    $group['labels'][0], $group['onlyOn'], self::padded($group['source']), self::padded($group['target']),
                    self::padded($group['difference']), $group['cancels'],
                ],
                $totals[0]->groups,
            ),
        );
        $cancelling = $totals[0]->groups[2]['shares'];
        self::assertSame(
            [2, 1, '5.00', 1, '-5.00'],
            [array_sum(array_column($cancelling, 'rows')), $cancelling[0]['rowsUp'], $cancelling[0]['up'], $cancelling[0]['rowsDown'],
                $cancelling[0]['down']],
        );
        self::assertSame(['0', '1', '3', '1'], array_column($totals[1]->groups, 'source'));
    }

    public function test_a_row_that_went_to_another_group_is_told_in_both(): void
    {
        $total = $this->totals(
            "KB,1,10,north\nKB,2,20,north\nKB,3,5,south\n",
            "KB,1,10,south\nKB,2,20,north\nKB,3,5,south\n",
            [[...self::SUM, 'by' => [['source' => 'part', 'target' => 'part']]]],
            header: 'basin,berth,fee,part',
        )[0];

        self::assertFalse($total->differs());
        self::assertSame([], $total->all['shares']);
        self::assertSame(
            [['north', ['elsewhere' => [1, '-10']]], ['south', ['elsewhere' => [1, '10']]]],
            array_map(fn(array $group): array => [$group['labels'][0], $this->shares($group['shares'])], $total->groups),
        );
    }

    public function test_numbers_of_any_length_are_summed_exactly(): void
    {
        $long = '123456789012345678901234567890.12345';
        $total = $this->totals(
            "KB,1,{$long}\nKB,2,-{$long}\nKB,3,9223372036854775807\nKB,4,99999999999999999\nKB,5,99999999999999999\nKB,6,0.1\nKB,7,0.2\n",
            "KB,1,{$long}\nKB,2,-{$long}\nKB,3,9223372036854775807\nKB,4,99999999999999999\nKB,5,99999999999999999\nKB,6,0.1\nKB,7,0.3\n",
            [self::SUM],
        )[0];

        self::assertSame('9423372036854775805.30000', $total->all['source']);
        self::assertSame('0.10000', $total->all['difference']);

        $many = implode('', array_map(static fn(int $row): string => "KB,{$row},99999999999999999\n", range(1, 300)));
        self::assertSame('29999999999999999700', $this->totals($many, $many, [self::SUM])[0]->all['source']);
    }

    public function test_over_rows_that_matched_only_changes_are_shares(): void
    {
        $totals = $this->totals(
            "KB,1,10\nKB,2,20\nKB,3,30\nKB,4,4\nKB,4,4\n",
            "KB,1,10\nKB,2,21\nKB,9,90\n",
            [[...self::SUM, 'over' => 'matched'], ['measure' => 'rows', 'over' => 'matched']],
        );

        self::assertSame(['30', '31', '1'], [$totals[0]->all['source'], $totals[0]->all['target'], $totals[0]->all['difference']]);
        self::assertSame(['pattern 1' => [1, '1']], $this->shares($totals[0]->all['shares']));
        self::assertSame(['2', '2', '0'], [$totals[1]->all['source'], $totals[1]->all['target'], $totals[1]->all['difference']]);
    }

    /** By hand: 2 × 10 and 3 × 10; 4 × 5 and 4 × 6; 7 of nothing known, which is no nought; a unit that one side lost. */
    public function test_a_quantity_times_its_unit_value_is_an_amount_and_a_unit_that_is_not_there_is_no_nought(): void
    {
        $pair = static fn(int $number, string $name): array => ['id' => "pair-00000000000{$number}", 'source' => $name, 'target' => $name,
            'kind' => 'number', 'forgives' => ['number-form']];
        $of = ['measure' => 'sum', 'source' => 'berths', 'target' => 'berths', 'by' => [self::BASIN]];
        $totals = $this->totals(
            "KB,1,2,10\nKB,2,4,5\nKB,3,7,\nLM,1,1.5,2.50\nLM,2,3,8\n",
            "KB,1,3,10\nKB,2,4,6\nKB,3,7,\nLM,1,1.5,2.5\nLM,2,3,\n",
            [[...$of, 'times' => ['source' => 'fee', 'target' => 'fee']], [...$of, 'times' => ['constant' => '-0.10']]],
            ['columnPairs' => [$pair(1, 'fee'), $pair(2, 'berths')]],
            'basin,berth,berths,fee',
        );

        self::assertSame('sum of berths × fee by basin', $totals[0]->total->sentence());
        $figures = static fn(TotalReport $total): array => [$total->all['source'], $total->all['target'], $total->all['difference']];
        self::assertSame(['67.75', '57.75', '-10.00'], $figures($totals[0]));
        self::assertSame([1, 2], [$totals[0]->taken['source']['unvalued'], $totals[0]->taken['target']['unvalued']]);
        // The fees differ in KB,2 and LM,2, the number of berths in KB,1.
        self::assertSame(
            ['pattern 1' => [1, '10.00'], 'pattern 2' => [1, '4.00'], 'pattern 3' => [1, '-24.00']],
            $this->shares($totals[0]->all['shares']),
        );
        self::assertSame(
            [['LM', '27.75', '3.75', '-24.00'], ['KB', '40.00', '54.00', '14.00']],
            array_map(
                static fn(array $group): array => [$group['labels'][0], $group['source'], $group['target'], $group['difference']],
                $totals[0]->groups,
            ),
        );
        // Where nobody compares the fees, it is said that they are not there, or not compared.
        $uncompared = $this->totals(
            "KB,1,2,10\nKB,2,4,5\nLM,2,3,8\n",
            "KB,1,3,10\nKB,2,4,6\nLM,2,3,\n",
            [[...$of, 'times' => ['source' => 'fee', 'target' => 'fee']]],
            ['columnPairs' => [$pair(2, 'berths')]],
            'basin,berth,berths,fee',
        )[0];
        self::assertSame(
            ['pattern 1' => [1, '10'], 'uncompared' => [1, '4'], 'unvalued' => [1, '-24']],
            $this->shares($uncompared->all['shares']),
        );
        // No list of findings has those rows: their keys lead there.
        self::assertSame(
            ['pattern 1' => null, 'uncompared' => [['KB', '2']], 'unvalued' => [['LM', '2']]],
            array_map(static fn(array $share): ?array => $share['keys'] ?? null, array_column($uncompared->all['shares'], null, 'name')),
        );
        self::assertSame(['-1.75', '-1.85', '-0.10'], $figures($totals[1]));
    }

    public function test_columns_that_are_read_along_divide_no_group_and_what_differs_in_them_is_said(): void
    {
        $total = $this->totals(
            "KB,1,1,north\nKB,2,1,NORTH\nLM,1,1,south\nLM,2,1,weir\nUV,1,1,lock\n",
            "KB,1,1,North\nKB,2,1,north\nLM,1,1,south\nLM,2,1,south\nUV,1,1,quay\n",
            [['measure' => 'rows', 'by' => [self::BASIN], 'along' => [['source' => 'part', 'target' => 'part']]]],
            ['columnPairs' => [['id' => 'pair-000000000002', 'source' => 'part', 'target' => 'part', 'forgives' => ['case']]]],
            'basin,berth,fee,part',
        )[0];

        self::assertSame(
            [
                ['KB', [['source' => 'north', 'target' => 'North', 'differsIn' => [], 'apart' => false]]],
                ['LM', [['source' => 'south', 'target' => 'south', 'differsIn' => ['source'], 'apart' => false]]],
                ['UV', [['source' => 'lock', 'target' => 'quay', 'differsIn' => [], 'apart' => true]]],
            ],
            array_map(static fn(array $group): array => [$group['labels'][0], $group['along'] ?? []], $total->groups),
        );
    }

    public function test_distinct_values_are_counted_as_their_pair_takes_them_and_those_of_one_side_are_told(): void
    {
        $pair = ['id' => 'pair-000000000002', 'source' => 'part', 'target' => 'part', 'forgives' => ['case']];
        $total = $this->totals(
            "KB,1,1,north\nKB,2,1,North\nKB,3,1,south\nLM,1,1,\nLM,2,1,north\nLM,3,1,weir\n",
            "KB,1,1,NORTH\nKB,2,1,south\nLM,1,1,north\nLM,2,1,south\nLM,3,1,lock\n",
            [['measure' => 'distinct', 'source' => 'part', 'target' => 'part', 'by' => [self::BASIN]]],
            ['columnPairs' => [$pair]],
            'basin,berth,fee,part',
        )[0];

        ['source' => $source, 'target' => $target, 'difference' => $difference, 'cancels' => $cancels] = $total->all;
        self::assertSame(['3', '3', '0', true], [$source, $target, $difference, $cancels]);
        self::assertSame(
            ['source' => ['count' => 1, 'values' => ['weir']], 'target' => ['count' => 1, 'values' => ['lock']]],
            $total->all['only'],
        );
        self::assertSame(
            [['LM', '2', '3', '1'], ['KB', '2', '2', '0']],
            array_map(
                static fn(array $group): array => [$group['labels'][0], $group['source'], $group['target'], $group['difference']],
                $total->groups,
            ),
        );
    }

    public function test_more_distinct_values_than_are_held_are_counted_in_runs(): void
    {
        $rows = static fn(int $from): string => implode('', array_map(
            static fn(int $row): string => "KB,{$row},".str_repeat((string) $row, 40)."\n",
            range($from, $from + 59_999),
        ));
        $total = $this->totals($rows(1), $rows(101), [['measure' => 'distinct', ...self::FEE]], ['columnPairs' => []])[0];

        self::assertSame(['60000', '60000', true], [$total->all['source'], $total->all['target'], $total->all['cancels']]);
        self::assertSame([100, 100], array_column($total->all['only'] ?? [], 'count'));
    }

    public function test_the_least_and_the_greatest_say_which_row_has_them(): void
    {
        $totals = $this->totals("KB,1,10\nKB,2,9\nKB,3,9\n", "KB,1,10\nKB,2,9\nKB,3,\n", [
            ['measure' => 'least', ...self::FEE],
            ['measure' => 'greatest', ...self::FEE, 'kind' => 'text'],
            ['measure' => 'blanks', ...self::FEE],
        ]);

        self::assertSame(['9', ['KB', '2'], ['KB', '2']], [$totals[0]->all['source'], ...array_values($totals[0]->all['keys'])]);
        self::assertSame('9', $totals[1]->all['target']);
        self::assertSame(['0', '1'], [$totals[2]->all['source'], $totals[2]->all['target']]);
    }

    /**
     * @param  list<array<string, mixed>>  $totals
     * @param  array<string, mixed>  $plan  what is not as it would be by itself
     * @return list<TotalReport>
     */
    private function totals(string $source, string $target, array $totals, array $plan = [], string $header = 'basin,berth,fee'): array
    {
        $document = [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [self::BASIN, ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [
                ['id' => 'pair-000000000001', ...self::FEE, 'kind' => 'number', 'forgives' => ['number-form'],
                    'tolerance' => ['by' => 'absolute', 'most' => '0.01']],
            ],
            'totals' => $totals,
            ...$plan,
        ];

        return $this->tallyOf(
            Plan::fromJson(CanonicalJson::of($document)),
            $this->reader("{$header}\n{$source}", 'old.csv'),
            $this->reader("{$header}\n{$target}", 'new.csv'),
        )->reports->totals;
    }

    /**
     * @param  list<ShareFigures>  $shares
     * @return array<string, array{int, string}>
     */
    private function shares(array $shares): array
    {
        return array_combine(
            array_column($shares, 'name'),
            array_map(static fn(array $share): array => [$share['rows'], $share['net']], $shares),
        );
    }

    private static function padded(?string $number): string
    {
        return number_format((float) $number, 2, '.', '');
    }
}
