<?php

declare(strict_types=1);

namespace Tests\Feature\Prove;

use App\Models\Tally;
use Tests\TestCase;

/** Totals of the plan from the tally to the answer and the report. */
final class TotalsOfTallyTest extends TestCase
{
    private const FEE = ['source' => 'fee', 'target' => 'fee'];

    private const BASIN = ['source' => 'basin', 'target' => 'basin'];

    public function test_a_total_says_what_differs_by_group_and_where_the_rows_are(): void
    {
        $tally = $this->proven([['measure' => 'sum', ...self::FEE, 'by' => [self::BASIN]], ['measure' => 'rows']]);

        $totals = $this->objects($this->api('GET', "/tallies/{$tally->id}/totals")->assertOk(), 'items');
        self::assertSame(['Sum of fee', 'Number of rows'], array_column($totals, 'heading'));
        self::assertSame(['60.00', '66.50', '6.50'], [$totals[0]['source'], $totals[0]['target'], $totals[0]['difference']]);
        self::assertSame(
            [
                ['extra', ['class' => 'extra'], '9.00'],
                ['missing', ['class' => 'missing'], '-3.00'],
                ['pattern 1', ['pattern' => 1], '0.50'],
            ],
            array_map(
                static fn(mixed $share): array => is_array($share) ? [$share['name'], $share['filter'], $share['net']] : [],
                (array) $totals[0]['shares'],
            ),
        );
        self::assertFalse($totals[1]['differs']);

        $groups = $this->api('GET', "/tallies/{$tally->id}/totals/1/groups")->assertOk();
        self::assertSame(
            [[['NQ']], [['KB']], [['LM']]],
            array_map(static fn(array $group): array => [$group['labels']], $this->objects($groups, 'items')),
        );
        $this->get("/api/v1/tallies/{$tally->id}/totals/1/picture")
            ->assertOk()
            ->assertSee('role="img"', false);
        $this->api('GET', "/tallies/{$tally->id}/totals/7/groups")->assertNotFound();
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertOk()->assertSeeInOrder(['What adds up', '+6.50', 'Sum of fee by basin']);
    }

    /** Groups meet however their cells are written; a berth that went to another part is in both groups. */
    public function test_each_share_of_a_group_leads_to_its_rows_and_to_no_others(): void
    {
        $this->actingAs($this->analyst);
        $header = "basin,berth,fee,part\n";
        $this->deliver('source', "{$header}KB,1,10,north\nKB,2,20,North\nKB,3,5,south\nKB,4,7,south\nLM,1,1,\nLM,2,2,north\n", 'old.csv');
        $this->deliver('target', "{$header}kb,1,11,NORTH\nkb,2,20,south\nkb,3,6,south\nlm,1,4,\nlm,3,9,north\nlm,4,9,west\n", 'new.csv');
        $part = ['source' => 'part', 'target' => 'part'];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$this->plan([
                ['measure' => 'sum', ...self::FEE, 'by' => [$part]],
                ['measure' => 'sum', ...self::FEE, 'by' => [self::BASIN, $part]],
            ]),
            'key' => [[...self::BASIN, 'forgives' => ['case']], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [[...self::FEE, 'kind' => 'number'], [...$part, 'forgives' => ['case']]],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('There is a tally.');
        $seen = 0;
        foreach ([1, 2] as $number) {
            foreach ($this->objects($this->api('GET', "/tallies/{$tally->id}/totals/{$number}/groups"), 'items') as $group) {
                foreach ((array) $group['shares'] as $share) {
                    self::assertIsArray($share);
                    self::assertIsArray($share['filter']);
                    $found = $this->api('GET', "/tallies/{$tally->id}/findings/count?".http_build_query($share['filter']))->assertOk();
                    self::assertSame($share['rows'], $found->json('total'), json_encode([$group['labels'], $share], JSON_THROW_ON_ERROR));
                    $seen++;
                }
            }
        }
        self::assertSame(18, $seen);
        $this->api('GET', "/tallies/{$tally->id}/findings?total=1")->assertUnprocessable();
        self::assertSame(0, $this->api('GET', "/tallies/{$tally->id}/findings/count?total=1&group=77")->json('total'));
    }

    public function test_what_a_rule_let_pass_leads_to_its_cells(): void
    {
        $pair = [...self::FEE, 'kind' => 'number', 'forgives' => ['number-form'], 'tolerance' => ['by' => 'absolute', 'most' => '0.50']];
        $tally = $this->proven([['measure' => 'sum', ...self::FEE]], ['columnPairs' => [$pair]]);

        $totals = $this->objects($this->api('GET', "/tallies/{$tally->id}/totals"), 'items');
        $passes = array_map(
            static fn(mixed $share): array => is_array($share) ? [$share['name'], $share['net'], $share['forgiven']] : [],
            (array) $totals[0]['shares'],
        );
        self::assertContains(['forgiven tolerance', '0.50', 1], $passes);
        $cells = $this->api('GET', "/tallies/{$tally->id}/forgiven/1")->assertOk();
        self::assertSame(['10.00', '10.50'], [$cells->json('items.0.source'), $cells->json('items.0.target')]);
    }

    public function test_the_next_tally_says_what_it_was_before(): void
    {
        $totals = [['measure' => 'sum', ...self::FEE]];
        $this->proven($totals);
        $this->deliver('target', "basin,berth,fee\nKB,1,10.00\nKB,2,20.00\nLM,1,27.00\nNQ,1,3.00\n", 'new.csv');
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally() ?? self::fail('There is a tally.');

        $answer = $this->api('GET', "/tallies/{$tally->id}/totals");
        self::assertSame(
            [false, ['tally' => 1, 'difference' => '6.50']],
            [$answer->json('items.0.differs'), $answer->json('items.0.before')],
        );
        self::assertEquals(
            [
                'tally' => 1,
                'totals' => [['words' => 'sum of fee', 'before' => '6.50', 'now' => '0.00', 'closer' => '6.50']],
                'worth' => [['words' => 'fee', 'before' => '0.5', 'now' => '0.0', 'closer' => '0.5']],
            ],
            $answer->json('since'),
        );
        $this->api('GET', "/datasets/{$this->dataset->id}")->assertJson(['tally' => ['totals' => 1, 'totalsDiffering' => 0]]);
    }

    public function test_what_the_deliverer_says_stands_beside_what_the_rows_come_to(): void
    {
        $this->actingAs($this->analyst);
        $parts = [
            $this->received('old-1.csv', "basin,berth,fee\nKB,1,10.00\nKB,2,20.00\nTRL,2,30.00\n"),
            $this->received('old-2.csv', "basin,berth,fee\nLM,1,27.00\nTRL,1,27.50\n"),
        ];
        foreach ($parts as $part) {
            $this->api('PUT', "/receipts/{$part}/format", ['skipBelow' => 1])->assertOk();
        }
        $trailer = ['rows' => 2, 'totals' => [['column' => 'fee', 'cell' => 3]]];
        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => array_map(static fn(string $part): array => ['receipt' => $part, 'trailer' => $trailer], $parts),
            'rowsClaimed' => 4,
        ])->assertAccepted();
        $this->deliver('target', "basin,berth,fee\nKB,1,10.00\nKB,2,20.00\nLM,1,27.00\n", 'new.csv');
        $totals = [['measure' => 'sum', ...self::FEE], ['measure' => 'rows']];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $this->plan($totals))->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        $records = ['side' => 'source', 'from' => 'the last records of its parts'];
        $this->api('GET', "/tallies/{$this->dataset->latestTally()?->id}/totals")->assertJson(['items' => [
            ['heading' => 'Sum of fee', 'declared' => [[...$records, 'figure' => '57.50', 'apart' => '-0.50']]],
            ['declared' => [
                ['side' => 'source', 'from' => 'by hand', 'figure' => '4', 'apart' => '-1'],
                [...$records, 'figure' => '3', 'apart' => '0'],
            ]],
        ]]);
    }

    public function test_a_figure_that_others_published_is_held_against_both_sides(): void
    {
        $tally = $this->proven([['measure' => 'sum', ...self::FEE, 'by' => [self::BASIN]]]);
        $path = "/tallies/{$tally->id}/totals/1/published-figures";
        $figures = [['labels' => [], 'figure' => '61.00'], ['labels' => ['KB'], 'figure' => '30']];
        $this->api('POST', $path, ['publisher' => 'annual report', 'figures' => $figures])->assertNoContent();
        $corrected = [['labels' => ['KB'], 'figure' => '30.50']];
        $this->api('POST', $path, ['publisher' => 'corrected', 'figures' => $corrected])->assertNoContent();
        $this->api('POST', $path, ['publisher' => 'x', 'figures' => [['labels' => [], 'figure' => 'ten']]])->assertUnprocessable();

        $this->api('GET', "/tallies/{$tally->id}/totals")->assertJson(['items' => [
            ['published' => ['figure' => '61.00', 'by' => 'Ruth Osei', 'fromSource' => '1.00', 'toTarget' => '5.50']],
        ]]);
        $groups = $this->objects($this->api('GET', "/tallies/{$tally->id}/totals/1/groups"), 'items');
        self::assertSame([null, 'corrected', null], data_get($groups, '*.published.publisher'));
        self::assertSame('0.50', data_get($groups[1], 'published.fromSource'));
        // What was published of that group is what the source has with the fee that was raised.
        self::assertSame([null, ['pattern 1'], null], data_get($groups, '*.published.through'));
    }

    public function test_a_total_of_sensitive_values_is_kept_from_whoever_they_are_masked_for(): void
    {
        $tally = $this->proven([['measure' => 'sum', ...self::FEE, 'by' => [self::BASIN]]], ['sensitive' => ['source' => ['fee']]]);

        $total = $this->objects($this->api('GET', "/tallies/{$tally->id}/totals"), 'items')[0];
        self::assertSame(
            [true, null, null, [], 0],
            [$total['isMasked'], $total['source'], $total['difference'], $total['shares'], $total['groups']],
        );
        self::assertSame([], $this->api('GET', "/tallies/{$tally->id}/totals/1/groups")->json('items'));
        $this->get("/api/v1/tallies/{$tally->id}/report")->assertSee('of sensitive values, which are masked')->assertDontSee('+6.50');
        $this->api('POST', "/datasets/{$this->dataset->id}/unmaskings")->assertCreated();
        $this->api('GET', "/tallies/{$tally->id}/totals")->assertJson(['items' => [['isMasked' => false, 'difference' => '6.50']]]);
    }

    public function test_a_total_that_no_side_can_take_is_a_problem_of_the_plan(): void
    {
        $this->proven([]);
        $plan = $this->plan([['measure' => 'sum', 'source' => 'fees', 'target' => 'fee']]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)
            ->assertOk()
            ->assertJson(['problems' => [['pointer' => '/totals/0/source']]]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $this->plan([['measure' => 'sum']]))->assertUnprocessable();
    }

    /**
     * @param  list<array<string, mixed>>  $totals
     * @param  array<string, mixed>  $rules
     */
    private function proven(array $totals, array $rules = []): Tally
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', "basin,berth,fee\nKB,1,10.00\nKB,2,20.00\nLM,1,27.00\nNQ,1,3.00\n", 'old.csv');
        $this->deliver('target', "basin,berth,fee\nKB,1,10.50\nKB,2,20.00\nLM,1,27.00\nNQ,2,9.00\n", 'new.csv');
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [...$this->plan($totals), ...$rules])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail((string) $this->dataset->latestRun()?->problem);
    }

    /**
     * @param  list<array<string, mixed>>  $totals
     * @return array<string, mixed>
     */
    private function plan(array $totals): array
    {
        return [
            'key' => [self::BASIN, ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [[...self::FEE, 'kind' => 'number', 'forgives' => ['number-form']]],
            'leftOut' => ['source' => [], 'target' => []],
            'totals' => $totals,
        ];
    }
}
