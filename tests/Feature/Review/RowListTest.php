<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Workbook;
use App\Queries\Review\Mask;
use Tests\TestCase;

/** Rows by where their key stands, with what a reference says of them; and the distinct values of some columns. */
final class RowListTest extends TestCase
{
    private const BEFORE = "basin,berth,holder,note\nKB,1,Ilse,a\nKB,2,Tove,b\nLM,3,Tove,\nXX,4,,\n,5,Imre,\n";

    private const AFTER = "basin,berth,holder\nKB,1,Ilse\nKB,9,Ezekiel\nQH,8,Ezekiel\n";

    private const LOOK_UP = ['reference' => 'Basins', 'on' => [['column' => 'basin', 'reference' => 'code']], 'take' => ['name']];

    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
        $this->deliver('source', self::BEFORE);
        $this->deliver('target', self::AFTER);
        $this->api('PUT', "/datasets/{$this->dataset->id}/plan", [
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => [['source' => 'holder', 'target' => 'holder']],
            'leftOut' => ['source' => ['note'], 'target' => []],
        ])->assertOk();
    }

    public function test_rows_of_one_side_stand_with_what_a_reference_says_of_them(): void
    {
        $this->reference("code,name\nKB,Kestrel Broad\nLM,\nQH,Quarry Hole\n");
        $either = ['which' => 'either', 'columns' => ['berth', 'note'], 'lookUps' => [self::LOOK_UP]];
        $list = $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", $either)->assertOk();
        $list->assertJson([
            'problem' => null,
            'chosen' => ['berth', 'note', 'Basins name', 'Basins record'],
            'found' => [
                'counts' => ['source' => ['alone' => 4, 'both' => 1, 'unkeyed' => 0], 'target' => ['alone' => 2, 'both' => 1]],
                'total' => 6,
            ],
        ]);
        self::assertSame([
            ['source', '2', 'b', 'Kestrel Broad', 'found'],
            ['source', '3', '', '', 'found but blank'],
            ['source', '4', '', '', 'without a record'],
            ['source', '5', '', '', 'blank key'],
            ['target', '9', '', 'Kestrel Broad', 'found'],
            ['target', '8', '', 'Quarry Hole', 'found'],
        ], $this->lines($list));

        $link = "/datasets/{$this->dataset->id}/row-lists/file?asked=".urlencode(json_encode($either, JSON_THROW_ON_ERROR));
        self::assertStringStartsWith(
            "side,line,berth,note,Basins name,Basins record\nsource,3,2,b,Kestrel Broad,found\nsource,4,3,,,found but blank\n",
            $this->api('GET', $link)->streamedContent(),
        );
        self::assertStringContainsString('"Basins record":"blank key"', $this->api('GET', "{$link}&as=json-lines")->streamedContent());
        $this->api('POST', "/datasets/{$this->dataset->id}/row-lists/workbook", $either)->assertAccepted();
        $workbook = Workbook::query()->firstOrFail();
        self::assertSame(['written', 6], [$workbook->state, $workbook->rows]);
    }

    public function test_several_records_are_an_error_and_never_the_first_one(): void
    {
        $this->reference("code,name\nKB,Kestrel Broad\nKB,Kestrel Basin\n");

        $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", ['which' => 'source', 'lookUps' => [self::LOOK_UP]])
            ->assertOk()
            ->assertJsonPath('found', null)
            ->assertJsonPath(
                'problem',
                fn(string $problem): bool => str_contains($problem, '"KB" finds 2 records of the reference "Basins"'),
            );
    }

    public function test_distinct_values_have_their_rows_and_nobody_groups_by_masked_ones(): void
    {
        $asked = ['which' => 'either', 'by' => ['holder'], 'columns' => ['berth']];
        $list = $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", $asked)->assertOk();
        self::assertSame(
            [['source', '', '4'], ['target', 'Ezekiel', '9'], ['source', 'Imre', '5'], ['source', 'Tove', '2']],
            $this->lines($list),
        );
        $list->assertJsonPath('found.lines.1.rows', ['source' => 0, 'target' => 2]);

        $all = $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", [
            'which' => 'all', 'by' => ['basin'], 'span' => ['column' => 'berth', 'kind' => 'number'],
        ])->assertOk();
        self::assertSame(
            [
                ['', ['5', '5'], '6', ''],
                ['KB', ['1', '9'], '2 … 3', '2 … 3'],
                ['LM', ['3', '3'], '4', ''],
                ['QH', ['8', '8'], '', '4'],
                ['XX', ['4', '4'], '5', ''],
            ],
            array_map(
                static fn(mixed $line): array => [
                    data_get($line, 'cells.0'),
                    data_get($line, 'span'),
                    data_get($line, 'lines.source'),
                    data_get($line, 'lines.target'),
                ],
                $this->objects($all, 'found.lines'),
            ),
        );

        $draft = $this->dataset->draft()->firstOrFail();
        $draft->update(['document' => ['sensitive' => ['source' => ['holder'], 'target' => []]] + $draft->document]);
        $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", $asked)->assertForbidden();
        $hidden = $this->api('POST', "/datasets/{$this->dataset->id}/row-lists", [
            'which' => 'both',
            'columns' => ['holder', 'berth'],
        ])->assertOk();
        self::assertSame([['source', '1', Mask::VALUE], ['target', '1', Mask::VALUE]], $this->lines($hidden));
    }

    private function reference(string $rows): void
    {
        $berths = $this->dataset;
        $this->dataset = $this->migration->datasets()->create(['name' => 'Basins']);
        $this->deliver('source', $rows, 'basins.csv');
        $this->dataset = $berths;
    }

    /**
     * @param  \Illuminate\Testing\TestResponse<\Symfony\Component\HttpFoundation\Response>  $list
     * @return list<list<string>> side and cells
     */
    private function lines(\Illuminate\Testing\TestResponse $list): array
    {
        /** @var list<array{side: string, cells: list<string>}> $lines */
        $lines = $list->json('found.lines');

        return array_map(static fn(array $line): array => [$line['side'], ...$line['cells']], $lines);
    }
}
