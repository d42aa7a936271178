<?php

declare(strict_types=1);

namespace Tests\Feature\Prepare;

use App\Models\Dataset;
use App\Queries\Review\Mask;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\File;
use Illuminate\Support\Facades\Process;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Tests\TestCase;

/** Other datasets of the migration that steps look up from. */
final class ReferencesTest extends TestCase
{
    use WideAndLong;

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
            '1 without a record',
            strip_tags((string) $this->get("/api/v1/tallies/{$this->dataset->latestTally()?->id}/report")
                ->assertOk()
                ->getContent()),
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
            ->firstOrCreate([], ['document' => [
                'formatVersion' => 3,
                'leftOut' => ['source' => [], 'target' => []],
                'key' => [],
                'columnPairs' => [],
                'sensitive' => ['source' => ['name'], 'target' => []],
            ]]);
        $auditor = $this->person('Ambrose Quill');
        $this->migration->memberships()->create(['user_id' => $auditor->id, 'role' => \App\Models\Role::Auditor]);
        $this->actingAs($auditor);
        $ofReference()->assertJson(['ready' => [['cells' => ['KB', Mask::VALUE]], ['cells' => ['LM', '']]]]);
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
}
