<?php

declare(strict_types=1);

namespace Tests\Feature\Deliver;

use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\RefusedRecord;
use NineTally\Core\Row\Side;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

final class DeliverTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_a_file_comes_in_chunks_is_shown_and_then_taken(): void
    {
        $receipt = $this->announce('source', 'C:\\exports\\old.csv', strlen(self::OLD));
        $this->chunk($receipt, 0, substr(self::OLD, 0, 40))->assertOk()->assertJson(['state' => 'receiving', 'receivedBytes' => 40]);
        $this->chunk($receipt, 40, substr(self::OLD, 40))->assertOk();

        $shown = $this->api('GET', "/receipts/{$receipt}")->assertOk();
        $shown->assertJson([
            'state' => 'received',
            'fileName' => 'old.csv',
            'digest' => hash('sha256', self::OLD),
            'preview' => ['columns' => ['basin', 'berth', 'holder', 'fee'], 'format' => ['delimiter' => 'comma']],
        ]);
        self::assertSame(['KB', '014', 'Ezekiel Thornøy', '1412.60'], $shown->json('preview.rows.0'));

        $this->takeParts('source', $receipt)->assertAccepted();
        $delivery = $this->delivery();
        self::assertSame([9, 1, 8, 1], [$delivery->read_count, $delivery->refused_count, $delivery->delivered_count, $delivery->number]);
        $this->api('GET', "/deliveries/{$delivery->id}/refused")
            ->assertOk()
            ->assertJson(['total' => 1, 'items' => [['line' => 10, 'reason' => 'wrong-number-of-cells', 'raw' => 'bad,row']]]);
        $this->api('GET', "/datasets/{$this->dataset->id}/deliveries")
            ->assertOk()
            ->assertJsonPath('items.0.digest', hash('sha256', self::OLD));
    }

    public function test_a_chunk_goes_on_where_the_last_one_ended_and_nowhere_else(): void
    {
        $receipt = $this->announce('source', 'old.csv', 100);
        $this->chunk($receipt, 0, str_repeat('x', 60));

        $this->chunk($receipt, 0, 'again')
            ->assertConflict()
            ->assertJson(['code' => 'chunk-out-of-place', 'detail' => 'The next chunk begins at byte 60, not at 0. Go on from there.']);
        $this->chunk($receipt, 60, str_repeat('x', 41))
            ->assertConflict()
            ->assertJson(['code' => 'more-than-announced']);
        $this->api('GET', "/receipts/{$receipt}")->assertJson(['receivedBytes' => 60]);
    }

    public function test_what_was_found_can_be_corrected(): void
    {
        $content = "basin;berth,note\nKB;1,x\n";
        $receipt = $this->announce('source', 'old.csv', strlen($content));
        $this->chunk($receipt, 0, $content);

        $this->api('PUT', "/receipts/{$receipt}/format", ['delimiter' => 'semicolon'])
            ->assertOk()
            ->assertJsonPath('preview.columns', ['basin', 'berth,note']);
        $this->api('PUT', "/receipts/{$receipt}/format", ['delimiter' => 'comma'])
            ->assertOk()
            ->assertJsonPath('preview.columns', ['basin;berth', 'note']);
        $this->api('PUT', "/receipts/{$receipt}/format", ['header' => false, 'skipAbove' => 1])
            ->assertOk()
            ->assertJson(['preview' => ['columns' => ['column 1', 'column 2'], 'rows' => [['KB;1', 'x']]]]);
        $this->api('PUT', "/receipts/{$receipt}/format", ['delimiter' => 'slash'])->assertUnprocessable();
    }

    public function test_a_file_of_another_encoding_is_read_and_says_so(): void
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', (string) iconv('UTF-8', 'Windows-1252', self::OLD), 'old.csv');

        $this->api('GET', "/datasets/{$this->dataset->id}")
            ->assertOk()
            ->assertJson(['source' => ['delivered' => 8, 'parts' => [['format' => ['encoding' => 'Windows-1252']]]]]);
    }

    #[DataProvider('notUsable')]
    public function test_a_file_that_cannot_be_used_is_refused_with_the_reason_and_leaves_nothing_behind(
        string $content,
        string $says,
    ): void {
        $receipt = $this->announce('source', 'old.csv', strlen($content));
        $this->chunk($receipt, 0, $content)->assertOk()->assertJson(['state' => 'refused']);
        self::assertStringContainsString($says, (string) Receipt::query()->findOrFail($receipt)->problem);
        self::assertStringContainsString('"old.csv"', (string) Receipt::query()->findOrFail($receipt)->problem);

        self::assertSame([], glob(storage_path('chunks/*')));
        $this->takeParts('source', $receipt)->assertConflict();
        self::assertSame(0, Delivery::query()->count());
    }

    /** @return iterable<string, array{string, string}> */
    public static function notUsable(): iterable
    {
        yield 'a workbook that breaks off' => ["PK\x03\x04".str_repeat('x', 50), 'is damaged'];
        yield 'a header that a quote holds open' => ["basin,\"note\nKB,open\n", 'quote'];
        yield 'blank lines only' => ["\n\n\n", 'every line is blank'];
    }

    public function test_several_files_become_one_delivery_with_columns_united_by_name(): void
    {
        $receipts = [];
        foreach (
            [
                'spring.csv' => "basin,berth,fee\r\nKB,1,2.50\nbad\n",
                'summer.jsonl' => "{\"berth\": \"2\", \"basin\": \"LM\", \"note\": \"late\"}\n",
            ]
            as $name => $content
        ) {
            $receipts[] = $receipt = $this->announce('source', $name, strlen($content));
            $this->chunk($receipt, 0, $content)->assertOk();
        }
        $this->api('POST', "/datasets/{$this->dataset->id}/deliveries", [
            'side' => 'source',
            'parts' => [['receipt' => $receipts[0], 'partLabel' => 'spring'], ['receipt' => $receipts[1]]],
            'partLabelColumn' => 'origin',
            'asOf' => '2026-11-24T02:00:00Z',
            'rowsClaimed' => 4,
        ])->assertAccepted();

        $course = $this->api('GET', "/datasets/{$this->dataset->id}")
            ->assertOk()
            ->assertJson([
                'source' => [
                    'fileName' => 'spring.csv and 1 more',
                    'columns' => ['basin', 'berth', 'fee', 'note', 'origin'],
                    'read' => 3,
                    'refused' => 1,
                    'delivered' => 2,
                    'asOf' => '2026-11-24T02:00:00Z',
                    'rowsClaimed' => 4,
                    'claims' => [['about' => 'rows', 'claimed' => '4', 'holds' => false]],
                    'parts' => [
                        [
                            'partLabel' => 'spring',
                            'missingColumns' => ['note'],
                            'delivered' => 1,
                            'lineEnds' => [['end' => 'LF', 'records' => 2], ['end' => 'CRLF', 'records' => 1]],
                        ],
                        [
                            'partLabel' => 'summer.jsonl',
                            'lineEnds' => null,
                            'missingColumns' => ['fee'],
                            'format' => ['kind' => 'json-lines'],
                        ],
                    ],
                ],
            ]);
        $this->api('GET', "/deliveries/{$this->number($course, 'source.id')}/refused")->assertJson([
            'items' => [['part' => 1, 'line' => 3]],
        ]);
        $this->api('POST', "/datasets/{$this->dataset->id}/preparation-trials", ['side' => 'source', 'preparation' => []])
            ->assertOk()
            ->assertJson(['rows' => 2, 'readyColumns' => ['basin', 'berth', 'fee', 'note', 'origin']]);
    }

    public function test_the_same_bytes_are_pointed_out_before_they_double_the_totals(): void
    {
        $this->deliver('source', self::OLD, 'old.csv');
        $again = $this->announce('source', 'copy.csv', strlen(self::OLD));

        $this->chunk($again, 0, self::OLD);
        $this->api('GET', "/receipts/{$again}")->assertJsonPath('preview.sameAs', 'byte for byte the same as old.csv of delivery 1');
    }

    public function test_columns_of_both_sides_are_profiled_on_one_axis_with_the_rows_behind_each_figure(): void
    {
        $this->deliver('source', "basin,fee\nKB,1.50\nKB,2.50\nLM,\n");
        $this->deliver('target', "basin,fee,note\nKB,1.5\nKB,2.5,x\nLM,400,\n");
        $profile = $this->api('GET', "/datasets/{$this->dataset->id}/profile")->assertOk();

        $profile->assertJson([
            'isReading' => false,
            'rows' => [
                [
                    'source' => ['name' => 'basin', 'kind' => 'text', 'distinct' => 2],
                    'target' => ['name' => 'basin'],
                    'by' => 'value',
                    'bins' => [['label' => 'KB', 'source' => 2 / 3, 'target' => 0.5]],
                ],
                [
                    'source' => ['name' => 'fee', 'kind' => 'number', 'blank' => 1, 'sum' => '4.00'],
                    'target' => ['sum' => '402.5'],
                    'looksChanged' => true,
                ],
                ['source' => null, 'target' => ['name' => 'note']],
            ],
        ]);
        $this->deliver('source', "basin,charge\nKB,1.50\n,2.50\n");
        $this->api('GET', "/datasets/{$this->dataset->id}/profile")->assertJson([
            'changes' => [
                'source' => [
                    'since' => 1,
                    'changes' => ['column charge is new', 'column fee is gone', 'basin is blank in 1 rows, and never was before'],
                ],
                'target' => null,
            ],
        ]);
        $delivery = $this->dataset->deliveries()->where('side', 'source')->orderBy('number')->first();
        $this->api('GET', "/deliveries/{$delivery?->id}/rows?column=fee&is=blank")
            ->assertOk()
            ->assertJson(['isAll' => true, 'rows' => [['line' => 4, 'cells' => ['LM', '']]]]);
        $this->api('GET', "/deliveries/{$delivery?->id}/rows?column=fee&is=shape&value=9.99")->assertJsonCount(2, 'rows');
    }

    public function test_an_empty_file_is_refused_before_it_comes(): void
    {
        $this->api('POST', "/datasets/{$this->dataset->id}/receipts", ['side' => 'source', 'fileName' => 'old.csv', 'bytes' => 0])
            ->assertUnprocessable()
            ->assertJson(['code' => 'empty-file']);
    }

    public function test_a_quote_left_open_swallows_what_follows_as_one_refused_record(): void
    {
        $receipt = $this->deliver('source', "basin,note\n".str_repeat("KB,fine\n", 30)."LM,\"open\n");

        self::assertSame(ReceiptState::Delivered, $receipt->state);
        self::assertSame([30, 1], [$this->delivery()->delivered_count, $this->delivery()->refused_count]);
        self::assertStringContainsString('never closed', RefusedRecord::query()->firstOrFail()->sentence());
    }

    public function test_columns_of_one_name_are_told_apart_by_their_places(): void
    {
        $this->deliver('source', "basin,fee,fee\nKB,1,2\n");

        self::assertSame(['basin', 'fee (column 2)', 'fee (column 3)'], $this->delivery()->columns);
    }

    public function test_taking_a_file_twice_makes_one_delivery_and_a_new_file_makes_another(): void
    {
        $receipt = $this->deliver('source', self::OLD);
        $this->takeParts('source', $receipt->id)->assertAccepted()->assertJson(['items' => [['state' => 'delivered']]]);
        self::assertSame(1, Delivery::query()->count());

        $this->deliver('source', self::OLD."OT,1,z,9\n");
        self::assertSame([1, 2], Delivery::query()->orderBy('id')->pluck('number')->all());
    }

    public function test_bytes_are_kept_as_they_came_under_their_digest(): void
    {
        $content = "\xEF\xBB\xBFbasin,berth\r\nKB,1\r\n";
        $this->deliver('source', $content);
        $digest = $this->delivery()->digest;

        self::assertSame($content, file_get_contents(storage_path('blobs/'.substr($digest, 0, 2)."/{$digest}")));
    }

    public function test_a_discarded_file_is_gone(): void
    {
        $receipt = $this->announce('source', 'old.csv', 10);
        $this->chunk($receipt, 0, 'basin');
        $this->api('DELETE', "/receipts/{$receipt}")->assertNoContent();

        self::assertSame([0, []], [Receipt::query()->count(), glob(storage_path('chunks/*'))]);
    }

    public function test_a_data_owner_may_look_but_not_deliver_and_a_stranger_may_neither(): void
    {
        $this->actingAs($this->owner);
        $this->api('GET', "/datasets/{$this->dataset->id}/deliveries")->assertOk();
        $this->api('POST', "/datasets/{$this->dataset->id}/receipts", [
            'side' => 'source',
            'fileName' => 'x',
            'bytes' => 1,
        ])->assertForbidden();
        $this->actingAs($this->person('Nobody Here'));
        $this->api('GET', "/datasets/{$this->dataset->id}/deliveries")->assertNotFound()->assertJson(['code' => 'not-found']);
    }

    private function delivery(): Delivery
    {
        return $this->dataset->latestDelivery(Side::Source) ?? self::fail('There is no delivery.');
    }
}
