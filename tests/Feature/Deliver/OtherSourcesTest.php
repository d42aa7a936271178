<?php

declare(strict_types=1);

namespace Tests\Feature\Deliver;

use App\Adapters\Sources\Sources;
use App\Models\Delivery;
use App\Models\Migration;
use App\Models\Receipt;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** Deliveries that are no delimited file: archives, queries, text of fixed width, and those of another dataset. */
final class OtherSourcesTest extends TestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->actingAs($this->analyst);
    }

    public function test_an_archive_becomes_the_files_in_it(): void
    {
        $path = storage_path('work/fees.zip');
        $archive = new \ZipArchive;
        $archive->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach (
            [
                'north.csv' => "basin,fee\nKB,1\n",
                '../../south.csv' => "basin,fee\nLM,2\n",
                'logo.png' => "\x89PNG\r\n\x1A\n".str_repeat('x', 50),
            ]
            as $name => $content
        ) {
            $archive->addFromString($name, $content);
        }
        $archive->close();
        $bytes = (string) file_get_contents($path);
        unlink($path);
        $receipt = $this->received('fees.zip', $bytes);

        $into = $this->api('GET', "/receipts/{$receipt}")
            ->assertJson(['state' => 'unpacked', 'digest' => hash('sha256', $bytes)])
            ->json('unpackedInto');
        self::assertIsArray($into);
        $files = array_values(Receipt::query()->whereKey($into)->get()->all());
        self::assertEqualsCanonicalizing(
            ['south.csv received', 'logo.png refused', 'north.csv received'],
            array_map(static fn(Receipt $file): string => "{$file->file_name} {$file->state->value}", $files),
        );
        $tables = array_filter($files, static fn(Receipt $file): bool => $file->state->value === 'received');
        $this->takeParts('source', ...array_map(static fn(Receipt $file): string => $file->id, $tables))->assertAccepted();
        $this->api('GET', "/datasets/{$this->dataset->id}")->assertJson([
            'source' => ['delivered' => 2, 'parts' => [['packedIn' => 'fees.zip'], ['packedIn' => 'fees.zip']]],
        ]);
    }

    public function test_the_rows_of_a_query_are_a_delivery(): void
    {
        $asked = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", [
            'side' => 'source',
            'source' => 'Old system',
            'sql' => "SELECT index_no, inspected_on, hull_sound, length_m, remarks FROM inspections ORDER BY 1, 2 LIMIT 3;\n",
        ])->assertAccepted();
        $id = $asked->json('id');
        self::assertIsString($id);

        $this->api('GET', "/receipts/{$id}")->assertJson([
            'state' => 'received',
            'preview' => [
                'columns' => ['index_no', 'inspected_on', 'hull_sound', 'length_m', 'remarks'],
                'rows' => [['W40000', '2021-03-01', '', '6.25', 'Anodes worn; look again in spring']],
            ],
        ]);
        $this->takeParts('source', $id)->assertAccepted();
        $course = $this->api('GET', "/datasets/{$this->dataset->id}");
        $course->assertJson(['querySources' => ['Old system'], 'source' => ['delivered' => 3]]);
        $seconds = static fn(mixed $moment): string => is_string($moment) ? substr($moment, 0, 19) : 'none';
        self::assertSame($seconds($course->json('source.parts.0.query.at')), $seconds($course->json('source.asOf')));
    }

    public function test_a_query_can_only_read_and_says_what_is_wrong_with_it(): void
    {
        foreach (
            [
                'SELECT nothing FROM inspections' => 'column "nothing" does not exist',
                'DELETE FROM inspections RETURNING *' => 'syntax error',
                'SELECT 1 AS a; DELETE FROM inspections' => 'syntax error',
                'SELECT 1 AS a) TO STDOUT; DELETE FROM inspections; SELECT (1' => 'must have an alias',
                'CREATE TEMP TABLE a AS SELECT 1' => 'syntax error',
                "SELECT lo_from_bytea(0, 'x') AS a" => 'permission denied',
                "SELECT pg_read_file('PG_VERSION') AS a" => 'permission denied',
                'SELECT 1 AS a, 2 AS a' => 'two of its columns are called "a"',
                'SELECT 1 AS a WHERE false' => 'it gives no row',
            ]
            as $sql => $problem
        ) {
            $id = $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", [
                'side' => 'source',
                'source' => 'Old system',
                'sql' => $sql,
            ])->json('id');
            self::assertIsString($id);
            $receipt = Receipt::query()->findOrFail($id);
            self::assertSame('refused', $receipt->state->value, $sql);
            self::assertStringContainsString($problem, (string) $receipt->problem);
            self::assertStringNotContainsString('SQLSTATE', (string) $receipt->problem);
        }
        $this->api('POST', "/datasets/{$this->dataset->id}/snapshots", [
            'side' => 'source',
            'source' => 'Elsewhere',
            'sql' => 'SELECT 1',
        ])->assertUnprocessable();
        $this->actingAs($this->owner)
            ->api('POST', "/datasets/{$this->dataset->id}/snapshots", ['side' => 'source', 'source' => 'Old system', 'sql' => 'SELECT 1'])
            ->assertForbidden();
    }

    public function test_a_table_of_the_old_system_is_chosen_whatever_it_is_called(): void
    {
        $at = "/datasets/{$this->dataset->id}";
        $tables = array_column((array) $this->api('GET', "{$at}/source-tables?source=Old+system")->assertOk()->json('items'), 'name');
        self::assertContains('inspections', $tables);
        $id = $this->api('POST', "{$at}/snapshots", ['side' => 'source', 'source' => 'Old system', 'table' => [
            'name' => 'inspections', 'columns' => ['index_no', 'length_m'], 'where' => "index_no = 'W40000'", 'orderBy' => ['inspected_on'],
        ]])->assertAccepted()->json('id');
        $receipt = Receipt::query()->whereKey($id)->firstOrFail();
        self::assertSame(
            'SELECT "index_no", "length_m" FROM inspections WHERE index_no = \'W40000\' ORDER BY "inspected_on"',
            $receipt->query['sql'] ?? null,
        );
        self::assertSame('received', $receipt->state->value, (string) $receipt->problem);
        foreach (['none', 'inspections; DROP TABLE inspections', '(SELECT 1)'] as $name) {
            $this->api('POST', "{$at}/snapshots", ['side' => 'source', 'source' => 'Old system', 'table' => ['name' => $name]])
                ->assertUnprocessable();
        }
    }

    public function test_a_source_belongs_to_one_migration(): void
    {
        $other = Migration::query()->create(['name' => 'Another trust', 'source_label' => 'Old', 'target_label' => 'New']);
        $other->memberships()->create(['user_id' => $this->analyst->id, 'role' => Role::Analyst]);
        $dataset = $other->datasets()->create(['name' => 'Moorings']);
        $this->actingAs($this->analyst->refresh());

        $this->api('GET', "/datasets/{$dataset->id}")->assertJson(['querySources' => []]);
        $this->api('POST', "/datasets/{$dataset->id}/snapshots", ['side' => 'source', 'source' => 'Old system', 'sql' => 'SELECT 1 AS a'])
            ->assertUnprocessable();
    }

    public function test_a_query_that_nobody_waits_for_ends_in_the_database_too(): void
    {
        $path = storage_path('work/query');
        $looks = 0;
        $bytes = app(Sources::class)->of($this->migration, 'Old system')->snapshot(
            'SELECT pg_sleep(60) AS nobody_waits_for_this',
            $path,
            static function () use (&$looks): bool {
                return ++$looks < 5;
            },
        );

        self::assertSame([null, false, false], [$bytes, is_file($path), is_file("{$path}.copy")]);
        self::assertSame(
            0,
            DB::connection('owner')
                ->table('pg_stat_activity')
                ->where('state', 'active')
                ->where('query', 'like', '%nobody_waits_for_this%')
                ->where('pid', '!=', DB::raw('pg_backend_pid()'))
                ->count(),
        );
    }

    public function test_text_of_fixed_width_is_read_at_its_edges_and_back_again(): void
    {
        $part = $this->received('berths.txt', "basin berth   fee\nKB    014   12.60\nLM    2      1.50\n");
        $this->api('GET', "/receipts/{$part}")->assertJson([
            'preview' => [
                'format' => ['kind' => 'fixed-width', 'starts' => [0, 6, 12]],
                'columns' => ['basin', 'berth', 'fee'],
                'beginning' => ['basin berth   fee', 'KB    014   12.60', 'LM    2      1.50'],
            ],
        ]);

        $this->api('PUT', "/receipts/{$part}/format", ['starts' => [0, 12]])
            ->assertOk()
            ->assertJsonPath('preview.rows.0', ['KB    014', '12.60']);
        $this->api('PUT', "/receipts/{$part}/format", ['kind' => 'delimited'])
            ->assertOk()
            ->assertJsonPath('preview.format.kind', 'delimited');
        $this->api('PUT', "/receipts/{$part}/format", ['kind' => 'fixed-width'])
            ->assertOk()
            ->assertJsonPath('preview.columns', ['basin', 'berth', 'fee']);
    }

    public function test_a_delivery_can_serve_another_dataset_of_the_migration(): void
    {
        $this->deliver('source', "code,name\nKB,Kestrel\nbad,,\n", 'basins.csv');
        $basins = Delivery::query()->sole();
        $this->dataset = $this->migration->datasets()->create(['name' => 'Berths']);
        $this->api('GET', "/datasets/{$this->dataset->id}/other-deliveries")
            ->assertOk()
            ->assertJson(['items' => [['dataset' => 'Moorings', 'delivery' => ['id' => $basins->id]]]]);

        $this->api('POST', "/datasets/{$this->dataset->id}/used-deliveries", ['delivery' => $basins->id, 'side' => 'target'])
            ->assertCreated()
            ->assertJson(['side' => 'target', 'number' => 1, 'digest' => $basins->digest, 'delivered' => 1, 'refused' => 1]);
        $used = Delivery::query()->latest('id')->firstOrFail();
        self::assertSame(
            "file,line,reason,what is wrong,record\nbasins.csv,3,wrong-number-of-cells,3 cells where the header has 2,\"bad,,\"\n",
            $this->get("/api/v1/deliveries/{$used->id}/refused.csv")
                ->assertOk()
                ->streamedContent(),
        );
        $this->api('POST', "/datasets/{$this->dataset->id}/used-deliveries", ['delivery' => $used->id, 'side' => 'source'])
            ->assertConflict()
            ->assertJson(['code' => 'not-of-this-migration']);
    }
}
