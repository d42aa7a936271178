<?php

declare(strict_types=1);

namespace Tests\Feature\Deliver;

use App\Actions\Deliver\DeliveryTerms;
use App\Adapters\Storage\BlobStore;
use App\Jobs\ReceiveParts;
use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Row\Side;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use Tests\TestCase;

/** Several files that become one delivery: whatever happens to one of them. */
final class PartsTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_a_workbook_is_looked_at_and_another_sheet_is_chosen(): void
    {
        $path = storage_path('work/berths.xlsx');
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        $writer->getCurrentSheet()->setName('Notes');
        $writer->addRow(WriterEntityFactory::createRowFromArray(['nothing here']));
        $writer->addNewSheetAndMakeItCurrent()->setName('Berths');
        foreach ([['printed by mjw'], ['basin', 'berth', 'fee'], ['KB', '014', 1412.6], ['LM', '2', 10]] as $cells) {
            $writer->addRow(WriterEntityFactory::createRowFromArray($cells));
        }
        $writer->close();
        $receipt = $this->received('berths.xlsx', (string) file_get_contents($path));
        unlink($path);

        $this->api('GET', "/receipts/{$receipt}")->assertJson([
            'preview' => [
                'format' => [
                    'kind' => 'xlsx',
                    'sheet' => 'Berths',
                    'headerRow' => 2,
                    'sheets' => [['name' => 'Notes'], ['name' => 'Berths']],
                ],
                'columns' => ['basin', 'berth', 'fee'],
            ],
        ]);
        $this->api('PUT', "/receipts/{$receipt}/format", ['sheet' => 'Notes'])
            ->assertOk()
            ->assertJson(['preview' => ['columns' => ['nothing here']]]);
        $this->api('PUT', "/receipts/{$receipt}/format", ['sheet' => 'Berths'])
            ->assertOk()
            ->assertJson(['preview' => ['columns' => ['basin', 'berth', 'fee'], 'rows' => [['KB', '014', '1412.6'], ['LM', '2', '10']]]]);
        $this->api('PUT', "/receipts/{$receipt}/format", ['sheet' => 'Gone'])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-workbook']);
        $this->takeParts('source', $receipt)->assertAccepted();

        self::assertSame(['basin', 'berth', 'fee'], Delivery::query()->firstOrFail()->columns);
        $this->deliver('target', "basin,berth,fee\nLM,2,10\nKB,014,1412.60\n");
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'fee', 'target' => 'fee']],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();
        $tally = $this->dataset->latestTally();
        // The row stands on row 3 of its sheet.
        $this->api('GET', "/tallies/{$tally?->id}/records/1")->assertJson([
            'key' => 'KB,014',
            'sourceLine' => 3,
            'targetLine' => 3,
            'sourceFile' => null,
        ]);
    }

    public function test_sheets_with_the_same_columns_become_parts_in_one_press(): void
    {
        $path = storage_path('work/years.xlsx');
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->openToFile($path);
        $sheets = [
            '2024' => [['basin', 'berth', 'fee'], ['KB', '1', 10], ['KB', '2', 20]],
            '2025' => [['printed by mjw'], ['berth', 'basin', 'fee'], ['3', 'KB', 30]],
            'Fees' => [['basin', 'berth', 'rate'], ['KB', '1', 2]],
        ];
        foreach ($sheets as $name => $rows) {
            $sheet = $name === 2024 ? $writer->getCurrentSheet() : $writer->addNewSheetAndMakeItCurrent();
            $sheet->setName((string) $name);
            foreach ($rows as $cells) {
                $writer->addRow(WriterEntityFactory::createRowFromArray($cells));
            }
        }
        $writer->close();
        $receipt = $this->received('years.xlsx', (string) file_get_contents($path));
        unlink($path);
        $this->api('GET', "/receipts/{$receipt}")->assertJsonPath('preview.format.sheets', [
            ['name' => '2024', 'hidden' => false],
            ['name' => '2025', 'hidden' => false, 'alike' => true],
            ['name' => 'Fees', 'hidden' => false],
        ]);

        $parts = $this->objects($this->api('POST', "/receipts/{$receipt}/sheets")->assertCreated(), 'items');
        self::assertSame(['years.xlsx, sheet 2024', 'years.xlsx, sheet 2025'], array_column($parts, 'fileName'));
        self::assertSame([null, null], array_column(array_column($parts, 'preview'), 'sameAs'));
        $this->api('POST', "/receipts/{$receipt}/sheets")
            ->assertConflict()
            ->assertJson(['code' => 'no-alike-sheets']);
        $this->takeParts(
            'source',
            ...array_map(static fn(Receipt $part): string => $part->id, Receipt::query()->orderBy('id')->get()->all()),
        )->assertAccepted();

        $delivery = Delivery::query()->firstOrFail();
        self::assertSame([3, ['basin', 'berth', 'fee']], [$delivery->delivered_count, $delivery->columns]);
        // Its name says the other sheet, once it is another.
        $again = $this->received(
            'years.xlsx',
            (string) file_get_contents($this->app->make(BlobStore::class)->path((string) $delivery->parts[0]?->digest)),
        );
        $this->api('POST', "/receipts/{$again}/sheets")->assertCreated();
        $this->api('PUT', "/receipts/{$again}/format", ['sheet' => 'Fees'])
            ->assertOk()
            ->assertJson(['fileName' => 'years.xlsx, sheet Fees']);
    }

    public function test_a_part_that_cannot_be_read_to_its_end_leaves_the_others_waiting(): void
    {
        $good = $this->received('north.csv', "basin,note\nKB,fine\n");
        $broken = $this->received('south.csv', "basin,note\n".str_repeat("KB,fine\n", 30).str_repeat("LM\n", 100_001));

        $this->takeParts('source', $good, $broken)->assertAccepted();

        self::assertSame([ReceiptState::Received, ReceiptState::Refused], [$this->receipt($good)->state, $this->receipt($broken)->state]);
        self::assertStringContainsString('records of "south.csv" are refused', (string) $this->receipt($broken)->problem);
        self::assertSame(0, Delivery::query()->count());
        $this->takeParts('source', $good)->assertAccepted();
        self::assertSame(1, Delivery::query()->firstOrFail()->delivered_count);
    }

    public function test_the_column_of_part_labels_may_not_have_the_name_of_another(): void
    {
        $part = $this->received('north.csv', "basin,origin\nKB,x\n");

        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => [['receipt' => $part]],
            'partLabelColumn' => 'origin',
        ])
            ->assertUnprocessable()
            ->assertJson(['code' => 'unusable-step']);
        self::assertSame(ReceiptState::Received, $this->receipt($part)->state);
    }

    public function test_parts_of_another_side_or_dataset_are_not_taken(): void
    {
        $part = $this->received('north.csv', "basin\nKB\n");
        $this->takeParts('target', $part)->assertConflict()->assertJson(['code' => 'not-received']);

        $this->dataset = $this->dataset->migration->datasets()->create(['name' => 'Other']);
        $this->takeParts('source', $part)->assertConflict();
        self::assertSame(0, Delivery::query()->count());
    }

    public function test_a_worker_that_dies_between_two_parts_is_followed_by_one_that_enters_the_delivery_once(): void
    {
        $parts = [$this->received('north.csv', "basin\nKB\n"), $this->received('south.csv', "basin\nLM\n")];
        DB::table('receipts')
            ->whereIn('id', $parts)
            ->update([
                'state' => 'reading',
                'taking' => json_encode(['receipts' => $parts, 'terms' => ['partLabelColumn' => 'origin']]),
                'updated_at' => now()->subMinute(),
            ]);

        app(\App\Actions\Work\KeepGoing::class)();
        // The worker that was thought dead comes back.
        ReceiveParts::dispatch($parts, new DeliveryTerms(partLabelColumn: 'origin'));

        $delivery = Delivery::query()->sole();
        self::assertSame([2, ['basin', 'origin'], 2], [$delivery->delivered_count, $delivery->columns, $delivery->parts->count()]);
    }

    public function test_which_file_a_record_came_in_is_shown_where_there_are_several(): void
    {
        $this->takeParts(
            'source',
            $this->received('north.csv', "basin,fee\nKB,1\n"),
            $this->received('south.csv', "basin,fee\nLM,2\n"),
        )->assertAccepted();
        $this->deliver('target', "basin,fee\nKB,1\nLM,3\n");
        $same = static fn(string $name): array => ['source' => $name, 'target' => $name];
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [$same('basin')],
            'columnPairs' => [$same('fee')],
            'leftOut' => ['source' => [], 'target' => []],
        ])->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated();

        $this->api('GET', "/tallies/{$this->dataset->latestTally()?->id}/records/1")->assertJson([
            'key' => 'LM',
            'sourceFile' => 'south.csv',
            'sourceLine' => 2,
            'targetFile' => null,
        ]);
        self::assertSame(2, $this->dataset->latestDelivery(Side::Source)?->parts->count());
    }

    private function receipt(string $id): Receipt
    {
        return Receipt::query()->findOrFail($id);
    }
}
