<?php

declare(strict_types=1);

namespace Tests\Feature\Review;

use App\Models\Tally;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

final class ReviewTest extends TestCase
{
    public function test_lists_rows_by_class_and_cells_by_pattern_in_source_order(): void
    {
        $tally = $this->tallied();

        $rows = $this->api('GET', "/tallies/{$tally->id}/findings")->assertOk();
        self::assertSame(
            ['changed', 'changed', 'changed', 'changed', 'repeated', 'repeated', 'unkeyed', 'missing', 'refused', 'extra'],
            array_column((array) $rows->json('items'), 'class'),
        );
        self::assertSame(range(1, 10), array_column((array) $rows->json('items'), 'sequence'));
        $this->api('GET', "/tallies/{$tally->id}/findings?class=repeated&from=2&limit=1")
            ->assertOk()
            ->assertJson([
                'total' => 2,
                'next' => null,
                'previous' => 1,
                'items' => [['key' => 'NQ,7', 'sourceLine' => 7, 'sourceRows' => 2, 'targetRows' => 0]],
            ]);
        $patterns = array_column($this->objects($this->api('GET', "/tallies/{$tally->id}"), 'patterns'), 'number', 'cause');
        ksort($patterns);
        self::assertSame(['blanked', 'case', 'filled', 'number-form', 'spacing'], array_keys($patterns));
        $this->api('GET', "/tallies/{$tally->id}/findings?pattern=".json_encode($patterns['case']).'')
            ->assertOk()
            ->assertJson([
                'total' => 1,
                'items' => [
                    [
                        'key' => 'KB,014',
                        'source' => 'Ezekiel Thornøy',
                        'target' => 'EZEKIEL THORNØY',
                        'class' => 'changed',
                        'decision' => 'open',
                    ],
                ],
            ]);
    }

    public function test_shows_the_whole_record_of_both_sides(): void
    {
        $tally = $this->tallied();

        $record = $this->api('GET', "/tallies/{$tally->id}/records/1")->assertOk();
        $record->assertJson(['class' => 'changed', 'key' => 'KB,014', 'sourceLine' => 2, 'targetLine' => 3]);
        self::assertSame(
            [
                ['key', 'basin', 'basin', 'KB', 'KB', null],
                ['key', 'berth', 'berth', '014', '014', null],
                ['compared', 'holder', 'owner', 'Ezekiel Thornøy', 'EZEKIEL THORNØY', 'case'],
                ['compared', 'fee', 'fee', '1412.60', '1412.60', null],
                ['not-compared', null, 'loaded', null, 't', null],
            ],
            array_map(
                static fn(array $field): array => [
                    $field['role'],
                    $field['source'],
                    $field['target'],
                    $field['sourceValue'],
                    $field['targetValue'],
                    data_get($field, 'finding.cause'),
                ],
                $this->objects($record, 'fields'),
            ),
        );
        $this->api('GET', "/tallies/{$tally->id}/records/9")
            ->assertOk()
            ->assertJson([
                'class' => 'refused',
                'key' => null,
                'refusal' => ['sentence' => '2 cells where the header has 4', 'raw' => 'bad,row'],
            ]);
        $this->api('GET', "/tallies/{$tally->id}/records/99")->assertNotFound();
    }

    public function test_finds_a_key_by_its_beginning_and_takes_wildcards_as_letters(): void
    {
        $tally = $this->tallied();

        $this->api('GET', "/tallies/{$tally->id}/keys?find=KB,0")->assertOk()->assertJsonCount(2, 'items');
        $this->api('GET', "/tallies/{$tally->id}/keys?find=%25")->assertOk()->assertJsonCount(0, 'items');
    }

    public function test_only_members_may_look_and_rule(): void
    {
        $tally = $this->tallied();
        $this->actingAs($this->person('Nobody Here'));

        foreach (
            [
                "/tallies/{$tally->id}",
                "/tallies/{$tally->id}/findings",
                "/tallies/{$tally->id}/findings?pattern=1",
                "/tallies/{$tally->id}/records/1",
                "/tallies/{$tally->id}/keys",
                "/tallies/{$tally->id}/rulings",
                "/tallies/{$tally->id}/report",
                "/tallies/{$tally->id}/findings/taken",
            ]
            as $path
        ) {
            $this->api('GET', $path)->assertNotFound();
        }
        $this->api('POST', "/tallies/{$tally->id}/rulings", [
            'scope' => 'row',
            'target' => '5',
            'decision' => 'expected',
            'reason' => 'as agreed',
            'seenAct' => 0,
        ])->assertNotFound();
    }

    public function test_a_long_value_is_shown_around_its_first_difference(): void
    {
        $long = str_repeat('Quay wall weeps. ', 40);
        $tally = $this->tallied("basin,berth,holder,fee\nKB,1,{$long}spring,1\n", "basin,berth,owner,fee,loaded\nKB,1,{$long}winter,1,t\n");

        $this->api('GET', "/tallies/{$tally->id}/findings?pattern=1")->assertJson([
            'items' => [['source' => '…'.mb_substr($long, -20).'spring', 'target' => '…'.mb_substr($long, -20).'winter']],
        ]);
    }

    /** With 200,000 findings: each endpoint uses an index, and few queries. */
    public function test_no_endpoint_of_review_scans_the_findings(): void
    {
        $tally = $this->largeTally();
        $asked = new Collection;
        DB::listen(static function (QueryExecuted $query) use ($asked): void {
            str_starts_with($query->sql, 'EXPLAIN') || $asked->push($query);
        });
        foreach ([
            'the tally' => '',
            'all rows, far down' => '/findings?from=90000',
            'rows of a class, far down' => '/findings?class=missing&from=50000',
            'cells of a pattern, far down' => '/findings?pattern=1&from=80000',
            'a record' => '/records/70000',
            'a key' => '/keys?find=KB,777',
            'the rulings' => '/rulings',
        ] as $what => $path) {
            $this->api('GET', "/tallies/{$tally->id}{$path}")->assertOk();
            /** @var list<QueryExecuted> $statements */
            $statements = $asked->splice(0)->all();

            self::assertLessThanOrEqual(
                10,
                count($statements),
                $what.implode("\n", array_map(static fn(QueryExecuted $query): string => $query->sql, $statements)),
            );
            foreach ($statements as $query) {
                if (str_contains($query->sql, '_findings')) {
                    $plan = json_encode(DB::select('EXPLAIN '.$query->sql, $query->bindings), JSON_THROW_ON_ERROR);
                    self::assertDoesNotMatchRegularExpression('/Seq Scan on (row|cell)_findings/', $plan, "{$what}: {$query->sql}");
                }
            }
        }
    }

    private function largeTally(): Tally
    {
        $this->actingAs($this->analyst);
        $tally = $this->tallied();
        // A second tally, whose 200,000 findings are written straight into the tables of its run.
        DB::statement('SELECT open_findings(999)');
        DB::statement(
            "INSERT INTO row_findings_999 SELECT 999, n, CASE WHEN n <= 100000 THEN 'changed' ELSE 'missing' END, CASE ".
                "WHEN n <= 100000 THEN n ELSE n - 100000 END, 'source', 'KB,' || n, sha256(n::text::bytea), 1, 1, n, n, ".
                "'[\"KB\",\"1\",\"a\",\"1\"]', '[\"KB\",\"1\",\"b\",\"1\",\"t\"]', NULL, 1 FROM generate_series(1, 200000) n",
        );
        DB::statement(
            "INSERT INTO cell_findings_999 SELECT 999, n, n, 1, n, 0, 'changed', 'none', 'a', 'b', sha256(n::text::bytea) ".
                "FROM generate_series(1, 100000) n",
        );
        DB::statement('SELECT index_findings(999, 2, place) FROM generate_series(1, 8) place');
        DB::statement('SELECT seal_findings(999), attach_findings(999)');
        $run = DB::table('runs')->insertGetId([
            'dataset_id' => $this->dataset->id,
            'plan_version_id' => 1,
            'source_delivery_id' => 1,
            'target_delivery_id' => 2,
            'state' => 'done',
            'user_id' => $this->analyst->id,
            'created_at' => now(),
        ]);
        DB::statement(
            'INSERT INTO tallies SELECT 999, dataset_id, 2, ?, plan_version_id, source_delivery_id, target_delivery_id, summary, '.
                'user_id, started_at, finished_at FROM tallies WHERE id = ?',
            [$run, $tally->id],
        );
        DB::statement(
            "INSERT INTO patterns SELECT 999, 1, 0, pair_id, source_column, target_column, 'changed', 'none', '{}', 100000, '[]' ".
                "FROM patterns WHERE number = 1",
        );

        return Tally::query()->findOrFail(999);
    }
}
