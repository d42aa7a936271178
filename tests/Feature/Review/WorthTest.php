<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Role;
use App\Models\Tally;
use Tests\TestCase;

/** What differences of numbers are worth: said of each cell, sifted, sorted, and added up. */
final class WorthTest extends TestCase
{
    use FilteredRegister;

    private const FEE = ['source' => 'fee', 'target' => 'fee', 'kind' => 'number'];

    /** Law: sifted and sorted by what is said of each cell, and the sum of it. */
    public function test_cells_are_sifted_sorted_and_added_up_by_their_difference(): void
    {
        $tally = $this->worth([self::FEE, ['source' => 'holder', 'target' => 'owner']]);
        $all = $this->all($tally, 'of=cells');
        $of = static fn(array $cell): ?float => is_numeric($cell['difference']) ? (float) $cell['difference'] : null;
        $numbers = array_values(array_filter($all, static fn(array $cell): bool => $of($cell) !== null));
        foreach (
            [
                'difference=some' => static fn(float $by): bool => $by !== 0.0,
                'difference=up' => static fn(float $by): bool => $by > 0,
                'difference=down' => static fn(float $by): bool => $by < 0,
                'difference=nought' => static fn(float $by): bool => $by === 0.0,
                'atLeast=4.5' => static fn(float $by): bool => abs($by) >= 4.5,
                'difference=down&atLeast=4.5&ruling=open' => static fn(float $by): bool => $by <= -4.5,
            ]
            as $filter => $isMeant
        ) {
            $meant = array_values(array_filter($numbers, static fn(array $cell): bool => $isMeant((float) $of($cell))));
            self::assertNotSame([], $meant, $filter);
            self::assertSame(array_column($meant, 'sequence'), array_column($this->all($tally, $filter), 'sequence'), $filter);
            self::assertSame(count($meant), $this->api('GET', "/tallies/{$tally->id}/findings/count?{$filter}")->json('total'));
            $worth = $this->api('GET', "/tallies/{$tally->id}/findings/worth?{$filter}")->assertOk();
            $differences = array_map(static fn(array $cell): float => (float) $of($cell), $meant);
            self::assertSame(
                [count($meant), round(array_sum($differences), 2), max([0.0, ...array_map(abs(...), $differences)])],
                [
                    $worth->json('items.0.cells'),
                    (float) $this->text($worth->json('items.0.worth.net')),
                    abs((float) $this->text($worth->json('items.0.worth.largest'))),
                ],
                $filter,
            );
        }
        foreach (
            [
                'largest' => static fn(array $cell): array => [-abs($of($cell) ?? 0.0), $of($cell) === null],
                'up' => static fn(array $cell): array => [$of($cell) === null, -(float) $of($cell)],
                'down' => static fn(array $cell): array => [$of($cell) === null, (float) $of($cell)],
            ]
            as $order => $by
        ) {
            $sorted = $all;
            usort(
                $sorted,
                static fn(array $one, array $other): int => [...$by($one), $one['sequence']] <=> [...$by($other), $other['sequence']],
            );
            self::assertSame(
                array_column($sorted, 'sequence'),
                array_column($this->all($tally, "of=cells&order={$order}"), 'sequence'),
                $order,
            );
        }
    }

    /** By hand: 4 to 5 and 10 to 9.5, a value lost and one gained, one written otherwise, and a word. */
    public function test_what_the_tally_knows_of_patterns_is_what_the_cells_say(): void
    {
        $tally = $this->tallied(
            "basin,berth,fee\nKB,1,4\nKB,2,10\nKB,3,7.25\nKB,4,\nKB,5,8\nKB,6,9\n",
            "basin,berth,fee,loaded\nKB,1,5,t\nKB,2,9.5,t\nKB,3,,t\nKB,4,100,t\nKB,5,8.0,t\nKB,6,nine,t\n",
            [self::FEE],
        );
        $worth = [
            'up' => ['cells' => 2, 'sum' => '101.00', 'most' => '100.00'],
            'down' => ['cells' => 2, 'sum' => '-7.75', 'most' => '-7.25'],
            'nought' => 1,
            'net' => '93.25',
            'largest' => '100.00',
        ];
        foreach (['', 'of=cells', 'class=changed', 'of=cells&text=K', 'key=KB&keyColumn=1'] as $filter) {
            self::assertEquals($worth, $this->api('GET', "/tallies/{$tally->id}/findings/worth?{$filter}")->json('items.0.worth'), $filter);
        }
        self::assertSame([], $this->api('GET', "/tallies/{$tally->id}/findings/worth?class=missing")->json('items'));
        self::assertSame(
            [['1', 0.25], ['-0.5', -0.05], ['-7.25', -1], ['100', null], ['0', 0], [null, null]],
            array_map(
                static fn(array $cell): array => [$cell['difference'], $cell['relativeDifference']],
                $this->all($tally, 'of=cells'),
            ),
        );
        $this->api('GET', "/tallies/{$tally->id}/findings?order=largest")->assertUnprocessable();
        $this->api('GET', "/tallies/{$tally->id}/findings?atLeast=much")->assertUnprocessable();
    }

    public function test_differences_of_masked_numbers_are_neither_said_nor_sorted_by(): void
    {
        $tally = $this->worth([[...self::FEE, 'sensitive' => true], ['source' => 'holder', 'target' => 'owner']]);
        $auditor = $this->person('Imre Halloway');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => Role::Auditor]);
        $this->actingAs($auditor);

        self::assertSame([], $this->api('GET', "/tallies/{$tally->id}/findings/worth?of=cells")->json('items'));
        self::assertSame([], array_filter(array_column($this->all($tally, 'of=cells'), 'difference'), is_string(...)));
        $this->api('GET', "/tallies/{$tally->id}/findings?of=cells&order=largest")->assertForbidden();
        $this->api('GET', "/tallies/{$tally->id}/findings?difference=up")->assertForbidden();
    }

    /** @param list<array<string, mixed>> $pairs */
    private function worth(array $pairs): Tally
    {
        [$source, $target] = ["basin,berth,holder,fee\n", "basin,berth,owner,fee,loaded\n"];
        foreach (range(1, 30) as $row) {
            $fee = $row / 4 + 1;
            $source .= "KB,{$row},Anna,".($row % 11 === 0 ? '' : $fee)."\n";
            $target .= "KB,{$row},ANNA,".['', "{$fee}.", $fee * 2, $fee - 4.75, $fee + 4.75][$row % 5].",t\n";
        }

        return $this->tallied($source, $target, $pairs);
    }

    private function text(mixed $written): string
    {
        return is_string($written) ? $written : self::fail('An amount is a text.');
    }
}
