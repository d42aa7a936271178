<?php

declare(strict_types=1);

namespace Tests\Feature\Prove;

use App\Models\Dataset;
use App\Models\Role;
use App\Models\Tally;
use Tests\TestCase;

/** Values that must have a record in another dataset, from the plan to the answer. */
final class RequiredRecordsTest extends TestCase
{
    private const HOLDER = ['source' => 'holder', 'target' => 'owner'];

    private const RULE = ['in' => 'Holders', 'columns' => [self::HOLDER], 'by' => [['source' => 'no', 'target' => 'no']]];

    public function test_what_the_move_lost_is_told_with_the_rows_that_need_it_and_where_it_was_looked_for(): void
    {
        $tally = $this->checked("no\nH1\nH2\n", "no\nH1\nH7\n");
        $check = $this->objects($this->api('GET', "/tallies/{$tally->id}/required-records")->assertOk(), 'items')[0];

        self::assertSame(
            ['holder / owner', 'no', ['source' => 1, 'target' => 1]],
            [$check['name'], $check['recordName'], $check['deliveries']],
        );
        self::assertEquals(
            ['lost' => [1, 2], 'inherited' => [1, 1], 'own' => [1, 1], 'untold' => [0, 0], 'source' => [1, 1]],
            array_map(static fn(mixed $kind): array => is_array($kind) ? array_values($kind) : [], (array) $check['kinds']),
        );
        $lines = fn(string $list): array => array_map(
            static fn(array $line): array => [$line['values'], $line['rows'] ?? $line['line'] ?? null],
            $this->objects($this->api('GET', "/tallies/{$tally->id}/required-records/1/lines?list={$list}")->assertOk(), 'items'),
        );
        self::assertSame([[['H2'], 2]], $lines('lost'));
        self::assertSame([[['H3'], 1]], $lines('inherited'));
        self::assertSame([[['H1'], 2], [['H7'], 3]], $lines('unreferenced%20target'));
        self::assertSame(
            "no,rows that need it\nH2,2\n",
            $this->get("/api/v1/tallies/{$tally->id}/required-records/1/taken?list=lost")->streamedContent(),
        );
        $this->api('GET', "/tallies/{$tally->id}/required-records/1/lines?list=all")->assertUnprocessable();

        // What was read then stands, whatever comes; what comes is read by the next tally, which is another one.
        $this->deliverTo($this->holders(), "no\nH1\nH2\n");
        self::assertSame([[['H2'], 2]], $lines('lost'));
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $next = $this->dataset->latestTally() ?? self::fail('There is a tally.');
        $after = $this->api('GET', "/tallies/{$next->id}/required-records");
        self::assertSame(
            [0, ['source' => 1, 'target' => 2], ['tally' => 1, 'lost' => 1, 'own' => 1]],
            [$after->json('items.0.kinds.lost.values'), $after->json('items.0.deliveries'), $after->json('items.0.before')],
        );
    }

    public function test_values_that_are_masked_here_or_there_are_counted_and_not_told(): void
    {
        $tally = $this->checked("no\nH1\nH2\n", "no\nH1\n");
        $auditor = $this->person('Imre Halloway');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => Role::Auditor]);
        $lines = "/tallies/{$tally->id}/required-records/1/lines?list=lost";
        self::assertCount(1, $this->objects($this->api('GET', $lines), 'items'));

        $no = ['source' => 'no', 'target' => 'no'];
        $this->api('PUT', "/datasets/{$this->holders()->id}/plan", [
            'key' => [$no],
            'columnPairs' => [],
            'leftOut' => ['source' => [], 'target' => []],
            'sensitive' => ['target' => ['no']],
        ])->assertOk();
        $this->actingAs($auditor);
        self::assertSame([[], true], [$this->api('GET', $lines)->json('items'), $this->api('GET', $lines)->json('isMasked')]);
        $this->get("/api/v1/tallies/{$tally->id}/required-records/1/taken?list=lost")->assertForbidden();
        self::assertSame(1, $this->api('GET', "/tallies/{$tally->id}/required-records")->json('items.0.kinds.lost.values'));
    }

    public function test_what_probably_refers_to_records_is_proposed_from_names_and_values(): void
    {
        $this->checked("no,name\nH1,a\nH2,b\nH3,c\nH4,d\n", "no\nH1\n");
        $this->deliverTo($this->migration->datasets()->create(['name' => 'Owners']), "holder\nX1\nX2\n");

        self::assertEquals(
            [['in' => 'Holders', 'columns' => [self::HOLDER], 'by' => [['source' => 'no', 'target' => 'no']], 'found' => 3, 'values' => 3]],
            $this->api('GET', "/datasets/{$this->dataset->id}/required-record-proposals")->assertOk()->json('items'),
        );
    }

    private function checked(string $old, string $new): Tally
    {
        $this->actingAs($this->analyst);
        $holders = $this->migration->datasets()->create(['name' => 'Holders']);
        $this->deliverTo($holders, $old, 'source');
        $this->deliverTo($holders, $new);
        $this->deliver('source', "basin,berth,holder\nKB,1,H1\nKB,2,H2\nKB,3,H3\n", 'old.csv');
        $this->deliver('target', "basin,berth,owner\nKB,1,H2\nKB,2,H2\nKB,3,H3\nKB,4,X9\n", 'new.csv');
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin'), $same('berth')],
            'columnPairs' => [self::HOLDER],
            'leftOut' => ['source' => [], 'target' => []],
            'records' => [self::RULE],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        return $this->dataset->latestTally() ?? self::fail((string) $this->dataset->latestRun()?->problem);
    }

    private function holders(): Dataset
    {
        return $this->migration->datasets()->where('name', 'Holders')->firstOrFail();
    }

    private function deliverTo(Dataset $dataset, string $content, string $side = 'target'): void
    {
        [$own, $this->dataset] = [$this->dataset, $dataset];
        $this->deliver($side, $content, "{$side}.csv");
        $this->dataset = $own;
    }
}
