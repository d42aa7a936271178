<?php

declare(strict_types=1);

namespace Tests\Feature\Deliver;

use App\Models\Answer;
use App\Models\Delivery;
use App\Models\Receipt;
use Tests\TestCase;

/** What is known of files before they become a delivery, and what the deliverer says of them. */
final class BeforeItIsTakenTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_what_changed_is_told_before_a_delivery_is_taken_and_found_out_once(): void
    {
        $this->deliver('source', "basin,berth,fee\nKB,1,10\nKB,2,20\nLM,3,30\nNQ,4,40\n", 'first.csv');
        $this->deliver('target', "basin,berth,fee\nKB,1,10\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        // Another order of columns and rows is no change; a new column is told by itself.
        $part = $this->received('second.csv', "fee,berth,basin,note\n40,4,NQ,\n10,1,KB,\n25,2,KB,x\n50,5,OT,\n60,6,OT,\n");

        $told = [
            'since' => 1,
            'rows' => ['same' => 2, 'changed' => 1, 'gone' => 1, 'new' => 2],
            'key' => ['basin', 'berth'],
            'changes' => ['column note is new'],
        ];
        $this->waiting('source', $part)
            ->assertOk()
            ->assertJson(['isWaiting' => false, 'overlaps' => [], 'changes' => $told]);
        $this->api('GET', "/datasets/{$this->dataset->id}/receipts?side=source")
            ->assertOk()
            ->assertJsonPath('items.0.id', $part);
        $answers = Answer::query()->count();
        $this->takeParts('source', $part)->assertAccepted();
        $this->api('GET', "/datasets/{$this->dataset->id}/profile")->assertOk()->assertJson(['changes' => ['source' => $told]]);
        self::assertSame($answers, Answer::query()->count());
    }

    public function test_parts_that_share_half_of_their_rows_are_pointed_out(): void
    {
        $parts = [
            $this->received('north.csv', "basin,fee\nKB,1\nKB,2\nLM,3\n"),
            $this->received('again.csv', "fee,basin,note\n3,LM,\n2,KB,\n9,NQ,\n"),
            $this->received('south.csv', "basin,fee\nOT,1\nOT,2\nLM,3\n"),
        ];

        $this->waiting('source', ...$parts)->assertJson([
            'overlaps' => [['one' => $parts[0], 'other' => $parts[1], 'rows' => 2, 'of' => 3]],
            'changes' => null,
        ]);
        self::assertCount(1, $this->objects($this->waiting('source', ...$parts), 'overlaps'));
    }

    public function test_what_the_deliverer_says_is_checked_and_stands_out_until_it_is_explained(): void
    {
        $part = $this->received('fees.csv', "basin,fee\nKB,0.10\nLM,0.20\nNQ,n/a\nTRL,3,0.35\n");
        $shown = $this->api('GET', "/receipts/{$part}")->assertJson([
            'preview' => ['trailer' => ['cells' => ['TRL', '3', '0.35'], 'isLikely' => true, 'rows' => 2]],
        ]);
        self::assertIsArray($shown->json('preview.trailer'));
        $this->api('PUT', "/receipts/{$part}/format", ['skipBelow' => 1])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => [['receipt' => $part, 'trailer' => ['rows' => 2, 'totals' => [['column' => 'fee', 'cell' => 3]]]]],
            'rowsClaimed' => 3,
            'totals' => [['column' => 'fee', 'sum' => '0.3']],
        ])->assertAccepted();

        $delivery = Delivery::query()->sole();
        self::assertSame(3, $delivery->delivered_count);
        $claims = [
            ['about' => 'rows', 'from' => 'by hand', 'claimed' => '3', 'arrived' => '3', 'holds' => true],
            ['about' => 'sum', 'column' => 'fee', 'claimed' => '0.3', 'arrived' => '0.3', 'unreadable' => 1, 'holds' => true],
            ['about' => 'rows', 'from' => 'the last record of fees.csv', 'claimed' => '3', 'holds' => true],
            ['about' => 'sum', 'column' => 'fee', 'claimed' => '0.35', 'arrived' => '0.3', 'holds' => false, 'explanation' => null],
        ];
        $this->api('GET', "/datasets/{$this->dataset->id}/deliveries")->assertJson(['items' => [['claims' => $claims]]]);
        $this->api('POST', "/deliveries/{$delivery->id}/claims/0/explanations", ['explanation' => 'x'])
            ->assertConflict()
            ->assertJson(['code' => 'nothing-to-explain']);
        $this->actingAs($this->owner)
            ->api('POST', "/deliveries/{$delivery->id}/claims/3/explanations", ['explanation' => 'x'])
            ->assertForbidden();
        $this->actingAs($this->analyst)
            ->api('POST', "/deliveries/{$delivery->id}/claims/3/explanations", ['explanation' => 'The fee of NQ is n/a.'])
            ->assertOk();
        $this->api('GET', "/datasets/{$this->dataset->id}")
            ->assertJsonPath('source.claims.3.explanation.text', 'The fee of NQ is n/a.')
            ->assertJsonPath('source.claims.3.explanation.by', 'Ruth Osei');
    }

    public function test_a_total_of_a_column_that_is_not_there_is_refused_before_anything_is_read(): void
    {
        $part = $this->received('fees.csv', "basin,fee\nKB,1\n");

        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => [['receipt' => $part]],
            'totals' => [['column' => 'fees', 'sum' => '1']],
        ])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unknown-column']);
        self::assertSame('received', Receipt::query()->findOrFail($part)->state->value);
    }

    public function test_combinations_are_counted_and_the_rows_that_share_one_are_shown(): void
    {
        $this->deliver('source', "basin,berth,season\nKB,1,2025\nKB,2,2025\nKB,1,2026\nLM,1,2025\nbad\n");
        $delivery = Delivery::query()->sole();

        $this->api('POST', "/deliveries/{$delivery->id}/combinations", ['columns' => ['basin', 'berth']])
            ->assertOk()
            ->assertJson([
                'counted' => [
                    'rows' => 4,
                    'distinct' => 3,
                    'repeating' => 1,
                    'repeatingRows' => 2,
                    'most' => [['cells' => ['KB', '1'], 'count' => 2]],
                ],
            ]);
        $shared = $this->api('POST', "/deliveries/{$delivery->id}/rows-sharing", [
            'columns' => ['berth', 'basin'],
            'cells' => ['1', 'KB'],
        ])->assertOk();
        self::assertSame([2, 4], array_column($this->objects($shared, 'rows'), 'line'));
        $this->api('POST', "/deliveries/{$delivery->id}/combinations", ['columns' => ['quay']])->assertUnprocessable();
    }

    public function test_what_will_not_fit_is_counted_on_the_source_after_its_steps(): void
    {
        $this->deliver('source', "basin,berth,holder\nKB,1,Ann\nLM,2,Annabella\nNQ,3,\n");
        $this->deliver('target', "basin,berth,owner\nKB,1,Ann\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $plan = [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [['source' => 'holder', 'target' => 'owner']],
            'leftOut' => ['source' => [], 'target' => []],
            'demands' => ['owner' => ['required' => true, 'mostCharacters' => 5], 'basin' => ['allowed' => ['KB', 'LM']]],
        ];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", $plan)
            ->assertOk()
            ->assertJsonPath('draft.demands.owner.mostCharacters', 5);

        $this->api('GET', "/datasets/{$this->dataset->id}/misfits")
            ->assertOk()
            ->assertJson([
                'counted' => [
                    'rows' => 3,
                    'columns' => [
                        [
                            'source' => 'basin',
                            'unmet' => [['part' => 'allowed', 'count' => 1, 'examples' => [['line' => 4, 'value' => 'NQ']]]],
                        ],
                        [
                            'source' => 'holder',
                            'target' => 'owner',
                            'unmet' => [['part' => 'mostCharacters', 'count' => 1], ['part' => 'required', 'count' => 1]],
                        ],
                    ],
                ],
            ]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            ...$plan,
            'sides' => [
                'source' => [
                    'preparation' => [
                        ['id' => 's1', 'kind' => 'leave-out-blank-rows'],
                        [
                            'id' => 's2',
                            'kind' => 'keep-rows',
                            'condition' => ['column' => 'holder', 'test' => 'is-not-blank'],
                            'reason' => 'nobody holds it',
                        ],
                    ],
                ],
            ],
        ])->assertOk();
        $this->api('GET', "/datasets/{$this->dataset->id}/misfits")->assertJson(['counted' => ['rows' => 2]]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [...$plan, 'demands' => ['quay' => ['required' => true]]])
            ->assertOk()
            ->assertJsonPath('problems.0.pointer', '/demands/quay');
    }

    /** @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function waiting(string $side, string ...$receipts): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/waiting-parts", ['side' => $side, 'receipts' => array_values($receipts)]);
    }
}
