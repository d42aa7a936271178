<?php

declare(strict_types=1);

namespace Tests\Feature\Match;

use Tests\TestCase;

final class MatchTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::OLD);
        $this->deliver('target', self::NEW);
    }

    public function test_the_first_draft_pairs_equal_names_and_proposes_a_key_that_tells_rows_apart(): void
    {
        $rows = implode('', array_map(static fn(int $row): string => 'B'.($row % 4).','.intdiv($row, 4).",h,1\n", range(1, 200)));
        $this->deliver('source', "basin,berth,holder,fee\n{$rows}");
        $this->deliver('target', "basin,berth,fee\n".str_replace(',h,1', ',1', $rows));
        $plan = $this->api('GET', "/datasets/{$this->dataset->id}/plan")->assertOk();

        self::assertSame(['basin', 'berth'], array_column((array) $plan->json('draft.key'), 'source'));
        self::assertSame(['fee'], array_column((array) $plan->json('draft.columnPairs'), 'source'));
        $plan->assertJson(['version' => null, 'problems' => [], 'source' => ['rows' => 200]]);
    }

    public function test_a_draft_without_a_key_says_what_is_missing_and_is_not_tallied(): void
    {
        $saved = $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [],
            'columnPairs' => [],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();

        self::assertSame('/key', $saved->json('problems.0.pointer'));
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertConflict()->assertJson(['code' => 'no-plan']);
    }

    public function test_rules_of_pairs_and_sides_are_kept_and_decide_what_the_tally_lets_pass(): void
    {
        $this->deliver(
            'source',
            "basin,berth,holder,fee\nKB,1,Ilse Thornøy,7.50\nKB,02,Wanda Dàvies,8.00\nKB,3,Hester Saltmarsh,-\nKB,3,Hester ".
                "Saltmarsh,9.00\n",
        );
        $this->deliver('target', "basin,berth,holder,fee\nKB,1,ILSE THORNØY,7.5\nKB,2,Wanda Dàvies,8.01\nKB,3,Hester Saltmarsh,9\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $fee = [
            'id' => '',
            ...$same('fee'),
            'kind' => 'number',
            'forgives' => ['number-form'],
            'tolerance' => ['by' => 'absolute', 'most' => '0.01'],
        ];
        $saved = $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), [...$same('berth'), 'forgives' => ['leading-zeros']]],
            'columnPairs' => [['id' => '', ...$same('holder'), 'kind' => 'text', 'forgives' => ['case']], $fee],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => [
                'source' => [
                    'blankTokens' => ['-', ' '],
                    'columns' => ['fee' => ['dateForms' => []]],
                    'repeats' => ['policy' => 'keep-highest', 'column' => 'fee', 'kind' => 'number'],
                ],
            ],
        ])->assertOk();

        $saved->assertJson([
            'problems' => [],
            'draft' => [
                'columnPairs' => [['forgives' => ['case']], ['tolerance' => ['most' => '0.01']]],
                'sides' => ['source' => ['blankTokens' => ['-', ' ']]],
            ],
        ]);
        self::assertMatchesRegularExpression('/^"pair-[0-9a-f]{12}"$/', (string) json_encode($saved->json('draft.columnPairs.1.id')));
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally();
        $this->api('GET', "/tallies/{$tally?->id}")->assertJson([
            'rows' => ['source' => ['agreed' => 3, 'changed' => 0, 'repeated' => 1], 'target' => ['agreed' => 3]],
            'forgiven' => [
                ['inKey' => true, 'source' => 'berth', 'cause' => 'leading-zeros'],
                ['inKey' => false, 'source' => 'holder', 'cause' => 'case', 'cells' => 1],
                ['source' => 'fee', 'cause' => 'number-form', 'cells' => 2],
                ['source' => 'fee', 'cause' => 'tolerance', 'cells' => 1],
            ],
        ]);
        $this->api('GET', "/tallies/{$tally?->id}/records/1")->assertJson([
            'class' => 'repeated',
            'sourceLine' => 4,
            'remark' => 'Not kept: of the rows of this side with its key, the one of line 5 was kept.',
        ]);
    }

    public function test_a_rule_that_the_schema_does_not_know_is_refused_with_its_place_and_the_draft_stays(): void
    {
        $this->match();
        $before = $this->dataset->draft()->firstOrFail()->document;
        $same = ['source' => 'holder', 'target' => 'holder'];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [],
            'columnPairs' => [['id' => '', ...$same, 'kind' => 'text', 'forgives' => ['luck']]],
            'leftOut' => ['source' => [], 'target' => []],
        ])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-plan', 'errors' => [['pointer' => '/columnPairs/0/forgives/0']]]);

        self::assertSame($before, $this->dataset->draft()->firstOrFail()->document);
    }

    public function test_a_column_that_a_new_delivery_no_longer_has_is_named_with_its_place(): void
    {
        $this->match();
        $this->deliver('target', "basin,berth,owner\nKB,1,x\n");

        $this->api('POST', "/datasets/{$this->dataset->id}/runs")
            ->assertUnprocessable()
            ->assertJson(['errors' => [['pointer' => '/columnPairs/1/target']]]);
    }

    public function test_counts_a_key_on_a_sample_at_once_and_then_on_the_whole_delivery(): void
    {
        $rows = implode('', array_map(static fn(int $row): string => "KB,{$row},h,1\n", range(1, 2_500)));
        $this->actingAs($this->analyst);
        $receipt = $this->announce('source', 'big.csv', strlen("basin,berth,holder,fee\n{$rows}KB,1,h,1\n"));
        $this->chunk($receipt, 0, "basin,berth,holder,fee\n{$rows}KB,1,h,1\n");
        $this->takeParts('source', $receipt);
        $key = ['key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']]];

        config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
        $this->api('POST', "/datasets/{$this->dataset->id}/key-counts", $key)
            ->assertOk()
            ->assertJson([
                'source' => ['rows' => 2_000, 'uniqueRows' => 2_000, 'isWhole' => false],
                'target' => ['rows' => 5, 'isWhole' => true],
            ]);
        (new \App\Jobs\CountKeyOfDelivery(1))->handle(app(\App\Adapters\Deliveries\PreparedSides::class));
        $this->api('POST', "/datasets/{$this->dataset->id}/key-counts", $key)->assertJson([
            'source' => ['rows' => 2_501, 'uniqueRows' => 2_499, 'repeatedRows' => 2, 'unkeyedRows' => 0, 'isWhole' => true],
        ]);
    }

    public function test_an_unknown_key_column_is_named(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/key-counts", ['key' => [['source' => 'bassin', 'target' => 'basin']]])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unknown-column']);
    }

    public function test_a_data_owner_may_not_change_the_plan(): void
    {
        $this->actingAs($this->owner);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [],
            'columnPairs' => [],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertForbidden();
    }
}
