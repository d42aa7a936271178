<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use App\Models\Dataset;
use App\Queries\Review\Mask;
use App\Queries\Tally\FolderOfTally;
use Tests\TestCase;

/** Numbers that the new system gave, taken by one dataset from what another has matched. */
final class AsMatchedTest extends TestCase
{
    private const HOLDERS = ['no,name', "H1,Ilse\nH2,Ezekiel\nH3,Tove\n", 'number,who', "H1,Ilse\n702,Ezekiel\n703,Tove\n"];

    private const STEP = [
        'id' => 'm',
        'kind' => 'as-matched',
        'reference' => 'Holders',
        'on' => [['column' => 'holder', 'reference' => 'no']],
        'take' => [['reference' => 'number', 'into' => 'holder']],
    ];

    private Dataset $moorings;

    private Dataset $holders;

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->moorings = $this->dataset;
        $this->deliver('source', "berth,holder\n1,H1\n2,H2\n3,H3\n4,H9\n");
        $this->deliver('target', "berth,holder\n1,H1\n2,702\n3,703\n4,H9\n");
        $this->plan('berth', 'berth', [['source' => 'holder', 'target' => 'holder']], [self::STEP]);
        $this->holders = $this->dataset = $this->migration->datasets()->create(['name' => 'Holders']);
        [$oldNames, $old, $newNames, $new] = self::HOLDERS;
        $this->deliver('source', "{$oldNames}\n{$old}", 'holders.csv');
        $this->deliver('target', "{$newNames}\n{$new}", 'holders.csv');
        $this->plan('no', 'number', [['source' => 'name', 'target' => 'who']], [], [['source' => ['H2'], 'target' => ['702']]]);
    }

    public function test_what_one_dataset_matched_is_the_crosswalk_of_another_until_it_is_tallied_anew(): void
    {
        $this->dataset = $this->moorings;
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => [self::STEP],
        ])->assertJson([
            'steps' => [['problem' => '"Holders" has matched nothing yet: there is no tally of a dataset of this name. Tally it first.']],
        ]);
        $this->tally($this->holders);
        $moorings = $this->tally($this->moorings);

        self::assertSame(['agreed' => 3, 'changed' => 1], $this->rows($moorings), 'One holder has no bridge yet.');
        $this->api('GET', "/tallies/{$moorings}")->assertJson([
            'matched' => [['name' => 'Holders', 'tally' => 1, 'newest' => 1]],
            'warnings' => [],
        ]);
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => [self::STEP],
        ])->assertJson([
            'steps' => [
                [
                    'sentence' => 'Put for holder what Holders matched: number into holder',
                    'figures' => [
                        'altered' => 1,
                        'notes' => [['what' => 'found a record', 'count' => 2], ['what' => 'without a record', 'count' => 2]],
                    ],
                ],
            ],
        ]);

        $bridges = [['source' => ['H2'], 'target' => ['702']], ['source' => ['H3'], 'target' => ['703']]];
        $this->dataset = $this->holders;
        $this->plan('no', 'number', [['source' => 'name', 'target' => 'who']], [], $bridges);
        $this->tally($this->holders);
        $sentence =
            'This tally is out of date: it took what Holders matched from tally 1 of it, and Holders has tally 2 by now. Tally again.';
        $this->api('GET', "/tallies/{$moorings}")->assertJson(['matched' => [['tally' => 1, 'newest' => 2]], 'warnings' => [$sentence]]);
        self::assertStringContainsString($sentence, (string) $this->get("/api/v1/tallies/{$moorings}/report")->assertOk()->getContent());

        $again = $this->tally($this->moorings);
        self::assertSame(['agreed' => 4, 'changed' => 0], $this->rows($again));
        $folder = app(FolderOfTally::class)->of($this->moorings->latestTally() ?? self::fail('There is no tally.'));
        self::assertStringContainsString('"Holders as matched"', $folder['texts'][\NineTally\Core\Command\TallyFolder::FILE]);
        self::assertStringContainsString("H3,Tove,703,Tove\n", (string) file_get_contents($folder['files']['matched-1.csv']));
    }

    public function test_all_are_tallied_in_the_order_that_this_asks_for(): void
    {
        $this->tally($this->holders);
        $this->tally($this->moorings);
        $this->dataset = $this->holders;
        $this->deliver('target', "number,who\nH1,Ilse\n702,Ezekiel\nH3,Tove\n", 'again.csv');

        $this->api('POST', "/migrations/{$this->migration->id}/runs")->assertJson([
            'started' => [['dataset' => 'Holders']],
            'waiting' => ['Moorings'],
        ]);
        $this->api('GET', "/tallies/{$this->moorings->latestTally()?->id}")->assertJson([
            'number' => 2,
            'matched' => [['tally' => 2, 'newest' => 2]],
        ]);
        $this->api('POST', "/migrations/{$this->migration->id}/runs")->assertJson(['started' => [], 'waiting' => []]);
    }

    public function test_a_circle_is_refused_with_the_names_in_it(): void
    {
        $this->tally($this->holders);
        $this->tally($this->moorings);
        $step = ['reference' => 'Moorings', 'on' => [['column' => 'no', 'reference' => 'holder']]] + self::STEP;
        $back = ['take' => [['reference' => 'holder', 'into' => 'no']]] + $step;
        $this->dataset = $this->holders;
        $this->plan('no', 'number', [['source' => 'name', 'target' => 'who']], [$back]);
        $sentence =
            'Holders takes numbers from what Moorings matched, that from Holders: that is a circle, and none of them could be tallied '.
            'first. Take one of these steps out.';

        $this->api('POST', "/datasets/{$this->holders->id}/runs")
            ->assertConflict()
            ->assertJson(['code' => 'circle', 'detail' => $sentence]);
        $this->api('GET', "/datasets/{$this->holders->id}/plan")->assertJson(['problems' => [['detail' => $sentence]]]);
    }

    public function test_numbers_that_are_masked_there_are_masked_here(): void
    {
        $this->tally($this->holders);
        $this->holders->draft()->firstOrFail()->update(['document' => [
            'sensitive' => ['source' => ['no'], 'target' => ['number']],
        ] + $this->holders->draft()->firstOrFail()->document]);

        $trial = $this->api('POST', "/datasets/{$this->moorings->id}/preparation-trials", [
            'side' => 'source', 'preparation' => [self::STEP], 'chosen' => 'm',
        ])->assertOk();
        self::assertSame(['1', Mask::VALUE], $trial->json('ready.0.cells'));
        $moorings = $this->tally($this->moorings);
        $findings = (string) $this->api('GET', "/tallies/{$moorings}/findings?of=rows")->assertOk()->getContent();
        self::assertStringContainsString(Mask::VALUE, $findings);
        self::assertStringNotContainsString('H3', $findings);
    }

    /**
     * @param  list<array{source: string, target: string}>  $pairs
     * @param  list<array<string, mixed>>  $steps
     * @param  list<array{source: list<string>, target: list<string>}>  $bridges
     */
    private function plan(string $source, string $target, array $pairs, array $steps, array $bridges = []): void
    {
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", array_filter([
            'key' => [['source' => $source, 'target' => $target]],
            'columnPairs' => $pairs,
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => $steps === [] ? [] : ['source' => ['preparation' => $steps]],
            'bridges' => $bridges,
        ]))->assertOk();
    }

    private function tally(Dataset $dataset): int
    {
        $this->api('POST', "/datasets/{$dataset->id}/runs")->assertCreated();

        return $dataset->latestTally()->id ?? self::fail('There is no tally.');
    }

    /** @return array<string, mixed> */
    private function rows(int $tally): array
    {
        $rows = $this->api('GET', "/tallies/{$tally}")->json('rows.source');

        return ['agreed' => data_get($rows, 'agreed'), 'changed' => data_get($rows, 'changed')];
    }
}
