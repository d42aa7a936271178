<?php

declare(strict_types=1);

namespace Tests\Feature\TakeAway;

use App\Adapters\Storage\WorkbookFiles;
use App\Jobs\WriteFindings;
use App\Models\Workbook;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Row;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Tests\TestCase;

/** Workbooks are written by a worker, for the person who asked, who may give them up. */
final class WorkbookTest extends TestCase
{
    public function test_the_findings_of_a_filter_are_written_and_taken_by_whom_they_are_for(): void
    {
        $tally = $this->tallied();
        $lines = substr_count($this->get("/api/v1/tallies/{$tally->id}/findings/taken?class=repeated")->streamedContent(), "\n");
        $asked = $this->api('POST', "/tallies/{$tally->id}/findings/workbook?class=repeated")
            ->assertAccepted()
            ->assertJson(['name' => 'moorings-tally-1-rows-repeated.xlsx']);
        $this->api('GET', '/workbooks')->assertJson([
            'items' => [['id' => $asked->json('id'), 'state' => 'written', 'rows' => $lines - 1, 'done' => 2, 'total' => 2]],
        ]);

        self::assertCount($lines - 1, $this->rows($this->taken()));
        $this->actingAs($this->owner)->api('GET', '/workbooks')->assertExactJson(['items' => []]);
        $id = $asked->json('id');
        self::assertIsString($id);
        $this->getJson("/api/v1/workbooks/{$id}/file")->assertNotFound();
        $this->api('DELETE', "/workbooks/{$id}")->assertNotFound();
        $this->actingAs($this->analyst)->api('DELETE', "/workbooks/{$id}")->assertNoContent();
        self::assertFileDoesNotExist($this->pathOf($id));
    }

    public function test_a_prepared_side_holds_every_cell_as_text(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', "basin,fee\nKB,1412.60\n");
        $this->deliver('target', "basin,fee\nKB,1412.60\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin')],
            'columnPairs' => [],
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => [
                'source' => ['preparation' => [['id' => 'w', 'kind' => 'compute-column', 'into' => 'note', 'formula' => '"=1+1"']]],
            ],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/prepared-rows/workbook?side=source")
            ->assertAccepted()
            ->assertJson(['name' => 'moorings-source-prepared.xlsx']);

        self::assertSame(['basin', 'fee', 'note'], $this->taken()->columns()->names);
        self::assertSame([['KB', '1412.60', '=1+1']], $this->rows($this->taken()));
    }

    public function test_what_is_given_up_is_written_no_further_and_leaves_nothing(): void
    {
        config(['nine-tally.seconds_between_reports' => 0.0]);
        $workbook = Workbook::query()->create(['user_id' => $this->analyst->id, 'name' => 'berths.xlsx']);
        $files = app(WorkbookFiles::class);
        $read = 0;
        $rows = (static function () use (&$read, $workbook, $files): \Generator {
            for ($read = 1; $read <= 1_000_000; $read++) {
                $read === 150 && $files->remove($workbook);
                yield $read => ['KB', (string) $read];
            }
        })();
        $files->write($workbook, ['basin', 'berth'], $rows, 1_000_000);

        self::assertSame(200, $read);
        self::assertFileDoesNotExist($files->path($workbook));
        self::assertSame([], glob(storage_path('work/workbook-*')));
    }

    public function test_why_it_could_not_be_written_is_said_and_what_nobody_took_is_removed_after_a_day(): void
    {
        $files = app(WorkbookFiles::class);
        [$failed, $old, $new] = array_map(
            fn(string $name): Workbook => Workbook::query()->create([
                'user_id' => $this->analyst->id,
                'dataset_id' => $this->dataset->id,
                'name' => $name,
            ]),
            ['failed.xlsx', 'old.xlsx', 'new.xlsx'],
        );
        $files->write(
            $failed,
            ['basin'],
            (static function (): \Generator {
                yield 1 => ['KB'];
                throw UnreadableFile::isNoWorkbook('berths.xlsx', 'it is damaged');
            })(),
            2,
        );
        foreach ([$old, $new] as $workbook) {
            $files->write($workbook, ['basin'], (static fn(): \Generator => yield 1 => ['KB'])(), 1);
        }
        Workbook::query()->whereKey($old->id)->update(['created_at' => now()->subDay()->subMinute()]);
        $files->clearUp();

        $this->actingAs($this->analyst)
            ->api('GET', '/workbooks')
            ->assertJson([
                'items' => [
                    [
                        'name' => 'failed.xlsx',
                        'state' => 'failed',
                        'problem' =>
                            'The workbook "berths.xlsx" cannot be read: it is damaged. Open and save it again, or export the table as CSV.',
                    ],
                    ['name' => 'new.xlsx', 'state' => 'written', 'rows' => 1],
                ],
            ])
            ->assertJsonCount(2, 'items');
        self::assertSame(
            [false, false, true],
            array_map(static fn(Workbook $workbook): bool => is_file($files->path($workbook)), [$failed, $old, $new]),
        );
        self::assertSame([], glob(storage_path('work/workbook-*')));
    }

    public function test_a_filter_that_asks_for_masked_values_is_not_written(): void
    {
        $tally = $this->tallied();
        $draft = $this->dataset->draft()->firstOrFail();
        $document = (array) $draft->document;
        data_set($document, 'columnPairs.0.sensitive', true);
        $draft->update(['document' => $document]);

        $this->api('POST', "/tallies/{$tally->id}/findings/workbook?of=cells&source=Ezekiel")->assertForbidden();
        // Shown when it was asked for, masked again before a worker came to it.
        $workbook = Workbook::query()->create(['user_id' => $this->analyst->id, 'name' => 'cells.xlsx']);
        WriteFindings::dispatchSync($workbook->id, $tally->id, Filter::from(['of' => 'cells', 'source' => 'Ezekiel']), $this->analyst->id);
        self::assertSame('failed', $workbook->refresh()->state);
        self::assertStringContainsString('masked', (string) $workbook->problem);
        self::assertFileDoesNotExist(app(WorkbookFiles::class)->path($workbook));
    }

    private function taken(): Reader
    {
        $file = $this->get('/api/v1/workbooks/'.Workbook::query()->firstOrFail()->id.'/file')->assertOk()->baseResponse;
        self::assertInstanceOf(BinaryFileResponse::class, $file);

        return (new ReaderCatalogue)->open($file->getFile()->getPathname(), 'taken.xlsx');
    }

    /** @return list<list<string>> */
    private function rows(Reader $reader): array
    {
        return array_map(
            static fn(mixed $record): array => $record instanceof Row ? $record->cells : [],
            iterator_to_array($reader->records(), false),
        );
    }

    private function pathOf(string $id): string
    {
        return storage_path("workbooks/{$id}.xlsx");
    }
}
