<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use App\Models\Dataset;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Process;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Tests\TestCase;

/** Steps are tried at once, kept with the plan, and run before the sides meet. */
final class PrepareTest extends TestCase
{
    private const WIDE = "basin,band,apr,may\nKB,9-12 m,41.20,41.20\nLM,5-9 m,44,\n,,85.20,41.20\n";

    private const LONG = "basin,band,month,charge\nKB,9-12 m,may,41.20\nKB,9-12 m,apr,41.2\nLM,5-9 m,apr,44\nLM,5-9 m,may,\n";

    private const LEAVE_OUT = [
        'id' => 'a',
        'kind' => 'leave-out-rows',
        'condition' => ['column' => 'basin', 'test' => 'is-blank'],
        'reason' => 'the totals',
    ];

    private const FOLD = [
        'id' => 'b',
        'kind' => 'columns-into-rows',
        'columns' => ['apr', 'may'],
        'namesInto' => 'month',
        'valuesInto' => 'charge',
    ];

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::WIDE);
        $this->deliver('target', self::LONG);
    }

    public function test_each_step_says_what_it_does_with_its_figures_and_rows_before_and_after(): void
    {
        $trial = $this->trial(
            [
                self::LEAVE_OUT,
                self::FOLD,
                ['id' => 'c', 'kind' => 'leave-out-columns', 'columns' => ['bandd']],
                ['id' => 'd', 'kind' => 'leave-out-blank-rows', 'off' => true],
            ],
            'b',
        );

        $trial->assertJson([
            'rows' => 3,
            'isWhole' => true,
            'readyRows' => 4,
            'steps' => [
                [
                    'sentence' => 'Leave out rows where basin is blank',
                    'problem' => null,
                    'figures' => ['in' => 3, 'leftOut' => 1, 'out' => 2],
                ],
                [
                    'sentence' => 'Columns into rows: apr and may, as month and charge',
                    'columns' => ['basin', 'band', 'month', 'charge'],
                    'figures' => ['in' => 2, 'made' => 2, 'out' => 4],
                ],
                ['problem' => 'There is no column "bandd" at this step. The nearest is "band".', 'figures' => null],
                ['isOff' => true, 'problem' => null, 'figures' => null],
            ],
        ]);
        $trial->assertJson([
            'examples' => [
                'columnsBefore' => ['basin', 'band', 'apr', 'may'],
                'rows' => [
                    [
                        'line' => 2,
                        'before' => ['KB', '9-12 m', '41.20', '41.20'],
                        'after' => [['KB', '9-12 m', 'apr', '41.20'], ['KB', '9-12 m', 'may', '41.20']],
                    ],
                ],
            ],
        ]);
    }

    public function test_a_tally_runs_the_steps_first_and_its_records_say_where_they_were_delivered(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally();
        self::assertNotNull($tally, (string) $this->dataset->latestRun()?->problem);

        $this->api('GET', "/tallies/{$tally->id}")->assertJson([
            'rows' => ['source' => ['delivered' => 3, 'left_out' => 1, 'made' => 2, 'prepared' => 4, 'agreed' => 3, 'changed' => 1]],
        ]);
        $report = $this->get("/api/v1/tallies/{$tally->id}/report")
            ->assertOk()
            ->getContent();
        self::assertIsString($report);
        self::assertStringContainsString('Columns into rows: apr and may, as month and charge', $report);
        self::assertStringContainsString('<small>the totals</small>', $report);
        $this->api('GET', "/tallies/{$tally->id}/records/1")->assertJson([
            'key' => 'KB,9-12 m,apr',
            'sourceLine' => 2,
            'targetLine' => 3,
            'fields' => [[], [], [], ['source' => 'charge', 'sourceValue' => '41.20', 'targetValue' => '41.2']],
        ]);
    }

    public function test_values_are_looked_up_from_another_dataset_of_the_migration(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", ['side' => 'source', 'preparation' => [$this->lookUp()]])
            ->assertOk()
            ->assertJson([
                'steps' => [['problem' => 'There is no reference "Basins". Add a dataset of this name to the migration and deliver it.']],
            ]);
        $berths = $this->dataset;
        $this->dataset = $this->dataset->migration->datasets()->create(['name' => 'Basins']);
        $this->deliver('source', "code,name\nKB,Kestrel Broad\n", 'basins.csv');
        $this->dataset = $berths;

        $this->trial([$this->lookUp()], 'x')->assertJson([
            'readyColumns' => ['basin', 'band', 'apr', 'may', 'basin_name'],
            'steps' => [
                [
                    'figures' => [
                        'notes' => [
                            ['what' => 'found a record', 'count' => 1],
                            ['what' => 'without a record', 'count' => 1, 'values' => [['value' => 'LM', 'count' => 1]]],
                            ['what' => 'blank key', 'count' => 1],
                        ],
                    ],
                ],
            ],
        ]);
        $this->keep([$this->lookUp()], [['source' => 'basin', 'target' => 'basin']]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(
            ['Basins' => Dataset::query()->where('name', 'Basins')->firstOrFail()->latestDelivery(\NineTally\Core\Row\Side::Source)?->id],
            $this->dataset->latestRun()?->reference_deliveries,
        );
        self::assertStringContainsString(
            '<small>1 without a record</small>',
            (string) $this->get("/api/v1/tallies/{$this->dataset->latestTally()?->id}/report")
                ->assertOk()
                ->getContent(),
        );
    }

    public function test_the_steps_of_a_reference_are_tried_like_those_of_a_side(): void
    {
        $tidy = ['id' => 't', 'kind' => 'tidy-text', 'columns' => ['code'], 'actions' => [['action' => 'upper']]];
        $ofReference = fn(array ...$more): \Illuminate\Testing\TestResponse => $this->api(
            'POST',
            "/datasets/{$this->dataset->id}/preparation-trials",
            ['reference' => 'Basins', 'preparation' => [$tidy, ...array_values($more)], 'chosen' => 't'],
        );
        $ofReference()
            ->assertConflict()
            ->assertJson(['code' => 'no-reference']);
        $berths = $this->dataset;
        $this->dataset = $this->dataset->migration->datasets()->create(['name' => 'Basins']);
        $this->deliver('source', "code,name\nkb,Kestrel Broad\nLM,\n", 'basins.csv');
        $basins = $this->dataset;
        $this->dataset = $berths;

        $ofReference()
            ->assertOk()
            ->assertJson([
                'rows' => 2,
                'steps' => [['sentence' => 'Tidy code: in capitals', 'figures' => ['altered' => 1]]],
                'examples' => ['rows' => [['before' => ['kb', 'Kestrel Broad'], 'after' => [['KB', 'Kestrel Broad']]]]],
            ]);
        $ofReference(['on' => [['column' => 'code', 'reference' => 'code']]] + $this->lookUp())
            ->assertOk()
            ->assertJsonPath(
                'steps.1.problem',
                'Step 2 of the reference Basins (Look up basin_name in Basins by code): The reference "Basins" is looked up from while '.
                    'it is prepared itself. Take one of the two steps out.',
            );

        // Who may not see what is sensitive there does not see it from here either.
        $basins
            ->draft()
            ->firstOrCreate([], ['document' => ['key' => [], 'columnPairs' => [], 'sensitive' => ['source' => ['name'], 'target' => []]]]);
        $auditor = $this->person('Ambrose Quill');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => \App\Models\Role::Auditor]);
        $this->actingAs($auditor);
        $ofReference()->assertForbidden()->assertJson(['code' => 'masked']);
    }

    public function test_a_tally_is_made_again_from_its_folder_with_the_same_figures_and_bytes(): void
    {
        $berths = $this->dataset;
        $this->dataset = $this->dataset->migration->datasets()->create(['name' => 'Basins']);
        $this->deliver('source', "code,name\nKB,Kestrel Broad\n", 'basins.csv');
        $this->dataset = $berths;
        $this->keep([
            ['id' => 'p', 'kind' => 'keep-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'parameter' => 'the basin']],
            self::FOLD,
            $this->lookUp(),
        ]);
        $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => ['the basin' => 'KB']])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally();
        self::assertNotNull($tally, (string) $this->dataset->latestRun()?->problem);
        $folder = storage_path('work/tally');

        foreach (
            [
                [$tally->id, $folder, "--from='{$folder}'", 0],
                [$tally->id, $folder, 'is there already', 1],
                [0, "{$folder}-x", 'There is no tally 0.', 1],
            ]
            as [$number, $into, $says, $status]
        ) {
            self::assertSame($status, Artisan::call('nine-tally:folder', ['tally' => (string) $number, 'folder' => $into]));
            self::assertStringContainsString($says, Artisan::output());
        }

        foreach (['a', 'b'] as $time) {
            $again = Process::run([PHP_BINARY, base_path('core/bin/nine-tally'), 'tally', "--from={$folder}", "--out={$folder}-{$time}"]);
            self::assertSame(1, $again->exitCode(), $again->errorOutput());
        }
        $summary = json_decode((string) file_get_contents("{$folder}-a/summary.json"), true);
        self::assertIsArray($summary);
        self::assertEquals([$tally->summary['rows'], $tally->summary['cells']], [$summary['rows'], $summary['cells']]);
        foreach (array_diff(scandir("{$folder}-a") ?: [], ['.', '..']) as $file) {
            self::assertFileEquals("{$folder}-a/{$file}", "{$folder}-b/{$file}");
        }
        $taken = $this->get("/api/v1/tallies/{$tally->id}/folder")->assertOk()->baseResponse;
        self::assertInstanceOf(BinaryFileResponse::class, $taken);
        $archive = new \ZipArchive;
        self::assertTrue($archive->open($taken->getFile()->getPathname()));
        foreach (array_diff(scandir($folder) ?: [], ['.', '..']) as $file) {
            self::assertSame((string) file_get_contents("{$folder}/{$file}"), $archive->getFromName("moorings-tally-1/{$file}"), $file);
        }
        self::assertStringContainsString(
            "tally --from='moorings-tally-1'",
            (string) $archive->getFromName('moorings-tally-1/make-it-again.txt'),
        );
        unlink($taken->getFile()->getPathname());
        foreach (['', '-a', '-b'] as $which) {
            File::deleteDirectory($folder.$which);
        }
    }

    public function test_a_step_that_no_longer_fits_a_new_delivery_stops_the_tally_with_a_message(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $this->deliver('source', str_replace('may', 'mai', self::WIDE));

        $this->api('POST', "/datasets/{$this->dataset->id}/runs")
            ->assertUnprocessable()
            ->assertJson([
                'code' => 'unusable-step',
                'detail' =>
                    'Step 2 of the source (Columns into rows: apr and may, as month and charge): There is no column "may" at this step. '.
                        'The nearest is "mai".',
            ]);
    }

    public function test_a_large_side_is_tried_on_a_sample_until_it_has_been_run_whole_and_is_prepared_once(): void
    {
        $this->deliver(
            'source',
            "basin,berth\n".
                implode('', array_map(static fn(int $row): string => ($row % 10 === 0 ? '' : 'KB').",{$row}\n", range(1, 12_000))),
        );
        $this->keep([self::LEAVE_OUT], [['source' => 'basin', 'target' => 'basin']]);
        $tried = $this->trial([self::LEAVE_OUT], 'a')->assertJson(['rows' => 12_000, 'isWhole' => false, 'isBeginning' => false]);
        $sample = $this->number($tried, 'sampleRows');
        self::assertEqualsWithDelta(4_000, $sample, 400);
        self::assertEqualsWithDelta(
            0.1,
            $this->number($tried, 'steps.0.figures.leftOut') / $sample,
            0.03,
            'The sample lies across the delivery.',
        );

        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-sides", ['side' => 'source'])->assertAccepted();
        $this->trial([self::LEAVE_OUT], 'a')->assertJson([
            'isWhole' => true,
            'readyRows' => 10_800,
            'steps' => [['figures' => ['in' => 12_000, 'leftOut' => 1_200]]],
        ]);
        $made = glob(storage_path('prepared/*'), GLOB_ONLYDIR);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame($made, glob(storage_path('prepared/*'), GLOB_ONLYDIR), 'The tally takes what was prepared before.');
        self::assertSame(1_200, $this->dataset->latestTally()?->summary['rows']['source']['left_out']);
    }

    public function test_a_data_owner_may_try_steps_and_not_keep_them(): void
    {
        $this->actingAs($this->owner);

        $this->trial([self::FOLD], 'b');
        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-sides", ['side' => 'source'])->assertForbidden();
        $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => []])->assertForbidden();
    }

    public function test_a_step_that_the_schema_does_not_know_is_refused_with_its_place(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => [['id' => 'x', 'kind' => 'guess']],
        ])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-plan', 'errors' => [['pointer' => '/sides/source/preparation/0/kind']]]);
    }

    public function test_a_parameter_is_recorded_with_the_tally_and_makes_no_new_plan(): void
    {
        $keep = ['id' => 'p', 'kind' => 'keep-rows', 'condition' => ['column' => 'basin', 'test' => 'is', 'parameter' => 'the basin']];
        $this->keep([$keep, self::FOLD]);
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        self::assertSame(
            'Step 1 of the source (Keep rows where basin is “the basin” of the tally): The tally has no parameter "the basin". Give it a '.
                'value before you tally.',
            $this->dataset->latestRun()?->problem,
        );

        foreach (['KB', 'LM'] as $basin) {
            $this->api('PUT', "/datasets/{$this->dataset->id}/parameters", ['parameters' => ['the basin' => $basin]])
                ->assertOk()
                ->assertJsonPath('parameters', ['the basin' => $basin]);
            $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
            self::assertSame(['the basin' => $basin], $this->dataset->latestRun()?->parameters);
            self::assertSame(
                [2, 1],
                [$this->dataset->latestTally()?->summary['rows']['source']['prepared'], $this->dataset->planVersions()->count()],
            );
        }
    }

    public function test_the_prepared_side_is_taken_away_with_the_same_bytes_each_time(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $taken = fn(string $as): string => $this->get("/api/v1/datasets/{$this->dataset->id}/prepared-rows?side=source&as={$as}")
            ->assertOk()
            ->streamedContent();

        self::assertSame(
            "basin,band,month,charge\nKB,9-12 m,apr,41.20\nKB,9-12 m,may,41.20\nLM,5-9 m,apr,44\nLM,5-9 m,may,\n",
            $taken('csv'),
        );
        self::assertSame('{"basin":"KB","band":"9-12 m","month":"apr","charge":"41.20"}', strtok($taken('json-lines'), "\n"));
        self::assertSame($taken('csv'), $taken('csv'));
    }

    public function test_rows_that_a_step_leaves_out_are_listed_with_it(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $listed = $this->api('GET', "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=".self::LEAVE_OUT['id'])->assertOk();

        self::assertSame([1, 1, null], [$listed->json('step'), $listed->json('total'), $listed->json('next')]);
        self::assertCount(1, $this->objects($listed, 'rows'));
        $this->api('GET', "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=gone")
            ->assertConflict()
            ->assertJson(['code' => 'no-such-step']);
    }

    public function test_a_prepared_side_that_nobody_uses_is_cleared_up_and_made_again(): void
    {
        $this->keep([self::LEAVE_OUT, self::FOLD]);
        $list = fn() => $this->api(
            'GET',
            "/datasets/{$this->dataset->id}/left-out-rows?side=source&step=".self::LEAVE_OUT['id'],
        )->assertOk();
        $sides = $this->app->make(\App\Adapters\Deliveries\PreparedSides::class);
        // What other tests left behind.
        $sides->clearUp(-60);
        $list();

        self::assertSame(0, $sides->clearUp(60));
        self::assertGreaterThan(0, $sides->clearUp(-60));
        $list();
    }

    /** @return array<string, mixed> */
    private function lookUp(): array
    {
        return [
            'id' => 'x',
            'kind' => 'look-up',
            'reference' => 'Basins',
            'on' => [['column' => 'basin', 'reference' => 'code']],
            'take' => [['reference' => 'name', 'into' => 'basin_name']],
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $preparation
     * @return \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>
     */
    private function trial(array $preparation, string $chosen): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", [
            'side' => 'source',
            'preparation' => $preparation,
            'chosen' => $chosen,
        ])->assertOk();
    }

    /**
     * @param  list<array<string, mixed>>  $preparation
     * @param  list<array{source: string, target: string}>|null  $key
     */
    private function keep(array $preparation, ?array $key = null): void
    {
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => $key ?? [$same('basin'), $same('band'), $same('month')],
            'columnPairs' => $key === null ? [$same('charge')] : [],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => ['source' => ['preparation' => $preparation]],
        ])->assertOk();
    }
}
