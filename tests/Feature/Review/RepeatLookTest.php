<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Actions\Review\LookAtRepeats;
use App\Questions\Answers;
use App\Questions\HowFirstRowsRepeat;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Rows that share values, looked at by whoever may see them; masked where they may not. */
final class RepeatLookTest extends TestCase
{
    private const TWICE = "basin,berth,fee,loaded\nKB,1,10,mon\nKB,1,10,tue\nkb,1,12,mon\nLM,2,5,mon\nLM,3,5,mon\n";

    private const ONCE = "basin,berth,fee\nKB,1,10\nLM,2,5\nLM,2,6\nQQ,9,1\n";

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::TWICE);
        $this->deliver('target', self::ONCE);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'fee', 'target' => 'fee']],
            'leftOut' => ['source' => ['loaded'], 'target' => []],
        ])->assertOk();
    }

    public function test_rows_of_the_key_are_looked_at_both_sides_next_to_each_other(): void
    {
        $look = $this->look(['except' => ['source' => ['loaded']]]);

        $look->assertJson([
            'isWaiting' => false,
            'chosen' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'found' => [
                'figures' => [
                    'source' => ['rows' => 5, 'combinations' => 4, 'groups' => 1, 'copies' => 1, 'conflicts' => 0],
                    'target' => ['rows' => 4, 'combinations' => 3, 'groups' => 1, 'copies' => 0, 'conflicts' => 1],
                ],
                'patterns' => [
                    ['side' => 'source', 'columns' => ['loaded'], 'groups' => 1, 'rows' => 2, 'beyondFirst' => 1],
                    ['side' => 'target', 'columns' => ['fee'], 'groups' => 1, 'rows' => 2, 'beyondFirst' => 1],
                ],
                'orders' => ['oneSide' => []],
                'beside' => [
                    'source' => ['rows' => 5, 'now' => 1, 'less' => [2, 2], 'more' => [1]],
                    'target' => ['less' => [1, 1], 'more' => [0]],
                ],
                'others' => [['source' => 'fee', 'target' => 'fee']],
            ],
        ]);
        self::assertSame(
            [2, 3],
            array_column($this->objects($look, "found.groups.{$this->number($look, 'found.orders.size.0')}.source.rows"), 'line'),
        );
        $this->look(['stake' => 'fee'])->assertJson(['stake' => ['source' => 'fee'], 'found' => ['stakes' => [
            'source' => ['all' => '42', 'beyondFirst' => '10', 'without' => '32'],
            'target' => ['all' => '22', 'beyondFirst' => '6', 'without' => '16'],
        ]]]);
        // On other columns, whatever their form.
        $this->look(['columns' => ['basin', 'fee'], 'forgives' => ['case']])->assertJson([
            'found' => [
                'figures' => [
                    'source' => ['groups' => 2, 'inGroups' => 4, 'byForm' => 0],
                ],
            ],
        ]);
        $this->look(['columns' => ['basin'], 'forgives' => ['case']])->assertJson([
            'found' => ['figures' => ['source' => ['byForm' => 1]]],
        ]);
    }

    public function test_parts_of_values_are_shared_and_rows_as_they_were_delivered(): void
    {
        $upper = ['id' => 'u', 'kind' => 'tidy-text', 'columns' => ['basin'], 'actions' => [['action' => 'upper']]];
        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sides' => ['source' => ['preparation' => [$upper]]]] + $draft->document]);
        $start = ['column' => 'basin', 'part' => 'start', 'length' => 1];

        $this->look(['columns' => ['berth'], 'parts' => [$start]])->assertJson([
            'mayChoose' => false,
            'chosen' => [['source' => 'berth'], ['source' => 'basin (first 1)', 'target' => 'basin (first 1)']],
            'found' => ['figures' => ['source' => ['groups' => 1, 'inGroups' => 3], 'target' => ['groups' => 1]]],
        ]);
        $this->look(['columns' => ['berth'], 'parts' => [$start], 'isPrepared' => false])->assertJson([
            'found' => ['figures' => ['source' => ['groups' => 1, 'inGroups' => 2]]],
        ]);
        $this->look(['parts' => [['column' => 'fee', 'part' => 'day']]])->assertJson([
            'found' => ['figures' => ['source' => ['blank' => 5]]],
        ]);
        $draft->update(['document' => ['sensitive' => ['source' => ['basin'], 'target' => []]] + $draft->document]);
        $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", ['columns' => ['berth'], 'parts' => [$start]])->assertForbidden();
    }

    /** What is said at once of large deliveries is what a look at their beginnings says. */
    public function test_the_first_rows_can_be_looked_at_alone(): void
    {
        $whole = app(LookAtRepeats::class)->question($this->dataset, [
            'columns' => [], 'forgives' => [], 'except' => ['source' => [], 'target' => []], 'stake' => null,
            'parts' => [], 'isPrepared' => true,
        ])[0];
        $found = app(Answers::class)->to(new HowFirstRowsRepeat($whole, 2))->content;

        self::assertSame([2, 1, 2, 0], array_map(
            static fn(string $figure): mixed => data_get($found, "figures.{$figure}"),
            ['source.rows', 'source.groups', 'target.rows', 'target.groups'],
        ));
        self::assertNull($this->look([])->json('firstRows'));
    }

    public function test_who_sees_no_values_puts_no_rows_together_by_them_and_is_shown_none(): void
    {
        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => ['fee'], 'target' => ['fee']]] + $draft->document]);

        $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", ['columns' => ['fee']])->assertForbidden();
        $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", ['stake' => 'fee'])->assertForbidden();
        $look = (string) $this->look([])->getContent();
        self::assertStringContainsString('"differing":["fee"]', $look);
        self::assertStringNotContainsString('"LM","2","6"', $look);
    }

    public function test_a_row_that_is_chosen_by_hand_is_kept_while_its_rows_are_the_same(): void
    {
        $look = $this->look([]);
        self::assertTrue($look->json('mayChoose'));
        self::assertFalse($this->look(['forgives' => ['case']])->json('mayChoose'));
        $place = fn(TestResponse $of, string $side): int => (int) array_search(2, array_map(
            static fn(mixed $group): mixed => data_get($group, "{$side}.count"),
            $this->objects($of, 'found.groups'),
        ), true);
        $choose = fn(?int $row, TestResponse $of, string $reason = 'seen on site'): TestResponse => $this->api(
            'POST',
            "/datasets/{$this->dataset->id}/kept-rows",
            ['side' => 'source', 'group' => $place($of, 'source'), 'row' => $row, 'reason' => $reason, 'seenDraft' => $of->json('draft')],
        );

        $choose(1, $look, ' ')->assertUnprocessable();
        $choose(7, $look)->assertConflict();
        $choose(1, $look)->assertOk();
        $choose(0, $look)->assertStatus(412);
        $chosen = $this->look([]);
        self::assertSame(
            ['row' => 1, 'reason' => 'seen on site'],
            $chosen->json("found.groups.{$place($chosen, 'source')}.source.kept"),
        );
        self::assertStringNotContainsString('digest', (string) $chosen->getContent());

        $this->assertRows(['repeated' => 2, 'agreed' => 1]);
        self::assertSame(['not-chosen', 3], $this->keptOf('KB,1'));
        // Two rows more, elsewhere: the choice holds. Another value among its rows: it does not, and says so.
        $this->deliver('source', self::TWICE."ZZ,1,1,mon\nZZ,2,1,mon\n");
        $this->assertRows(['repeated' => 2, 'missing' => 4]);
        $this->deliver('source', str_replace('KB,1,10,tue', 'KB,1,10,wed', self::TWICE));
        $this->assertRows(['repeated' => 3]);
        self::assertStringContainsString('The row of the source that was chosen by hand for KB,1 is not kept', (string) json_encode(
            $this->api('GET', "/tallies/{$this->dataset->latestTally()?->id}")->json('warnings'),
        ));

        $again = $this->look([]);
        self::assertNull($again->json("found.groups.{$place($again, 'source')}.source.kept"));
        $choose(0, $again)->assertOk();
        self::assertCount(1, $this->dataset->draft()->firstOrFail()->document['keptRows'] ?? []);
        $choose(null, $this->look([]))->assertOk();
        self::assertArrayNotHasKey('keptRows', $this->dataset->draft()->firstOrFail()->document);
    }

    public function test_policies_are_tried_on_all_rows_that_share_the_key(): void
    {
        $both = static fn(string $policy): array => ['source' => ['policy' => $policy], 'target' => ['policy' => $policy]];
        $trial = $this->try(['policies' => [$both('keep-first'), $both('keep-last')], 'stake' => 'fee']);

        $trial->assertJson(['now' => ['source' => ['policy' => 'set-aside']], 'found' => [
            'keys' => 2,
            'tried' => [
                ['agreed' => 2, 'changed' => 0, 'leftOut' => ['source' => '10', 'target' => '6'], 'source' => ['rows' => 3]],
                ['agreed' => 1, 'changed' => 1, 'leftOut' => ['source' => '10', 'target' => '5'], 'target' => ['not_kept' => 1]],
            ],
            'beside' => ['differ' => 2, 'judged' => 1, 'patterns' => [['source' => 'fee', 'cells' => [0, 1]]], 'groups' => [
                ['target' => ['kept' => [['line' => 3], ['line' => 4]]]],
                ['source' => ['kept' => [['line' => 2], ['line' => 3]], 'rows' => [['line' => 2], ['line' => 3]]]],
            ]],
        ]]);
        $highest = static fn(string $column): array => ['policies' => [[
            'source' => ['policy' => 'keep-highest', 'column' => $column],
            'target' => ['policy' => 'set-aside'],
        ]]];
        self::assertStringContainsString('has no column', (string) json_encode($this->try($highest('nowhere'))->json('problem')));
        self::assertStringContainsString(
            'needs the column',
            (string) json_encode($this->try(['policies' => [$both('keep-highest')]])->json('problem')),
        );

        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => ['loaded', 'fee'], 'target' => []]] + $draft->document]);
        $this->api('POST', "/datasets/{$this->dataset->id}/policy-trials", $highest('loaded'))->assertForbidden();
        $masked = (string) $this->try(['policies' => [$both('keep-first'), $both('keep-last')]])->getContent();
        self::assertStringNotContainsString('"mon"', $masked);
    }

    /**
     * @param  array<string, mixed>  $asked
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function try(array $asked): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/policy-trials", $asked)->assertOk();
    }

    /** @param array<string, int> $rows of the source, as the next tally counts them */
    private function assertRows(array $rows): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        self::assertEquals($rows, array_intersect_key($this->dataset->latestTally()->summary['rows']['source'] ?? [], $rows));
    }

    /** @return array{mixed, mixed} reason and line of the row that was kept */
    private function keptOf(string $key): array
    {
        $row = (array) DB::table('row_findings')->where([
            'tally_id' => $this->dataset->latestTally()?->id, 'class' => 'repeated', 'side' => 'source', 'key' => $key,
        ])->first(['reason', 'kept_line']);

        return [$row['reason'] ?? null, $row['kept_line'] ?? null];
    }

    /**
     * @param  array<string, mixed>  $asked
     * @return TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function look(array $asked): TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/repeat-looks", $asked)->assertOk();
    }
}
