<?php

declare(strict_types=1);

/* A tally of five million findings, made for the bench of Review. */

use App\Adapters\Database\CopyText;
use App\Models\Migration;
use App\Models\Role;
use App\Models\Tally;
use App\Models\User;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;

const TALLY = 900;
const ROWS = 3_400_000;
const PATTERNS = 30;

/** Eight in ten rows have changed, in one cell or two; the patterns are as uneven as they are in life. */
function makeTally(): void
{
    $owner = DB::connection('owner');
    $person = User::query()->create(['name' => 'Ruth Osei', 'email' => 'ruth@wherrymoor.example', 'password' => 'kept by the lock house']);
    $migration = Migration::query()->create([
        'name' => 'Wherrymoor cutover',
        'source_label' => 'Old register',
        'target_label' => 'New register',
    ]);
    $migration->memberships()->create(['user_id' => $person->id, 'role' => Role::Analyst]);
    $dataset = $migration->datasets()->create(['name' => 'Moorings']);
    foreach (['source', 'target'] as $side) {
        $owner->statement(
            "INSERT INTO deliveries (dataset_id, side, number, file_name, digest, bytes, format, columns, read_count, refused_count, ".
                "delivered_count, user_id, delivered_at) VALUES (?, ?, 1, 'moorings.csv', repeat('0', 64), 0, '{}', ".
                "'[\"basin\",\"berth\",\"holder\",\"fee\"]', 0, 0, 0, ?, now())",
            [$dataset->id, $side, $person->id],
        );
    }
    $pairs = array_map(
        static fn(int $pair): array => ['id' => sprintf('pair-%012d', $pair), 'source' => "column_{$pair}", 'target' => "column_{$pair}"],
        range(1, 10),
    );
    $plan = json_encode(
        [
            'formatVersion' => 3,
            'key' => [['source' => 'basin', 'target' => 'basin'], ['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => $pairs,
        ],
        JSON_THROW_ON_ERROR,
    );
    $owner->statement(
        "INSERT INTO plan_versions (dataset_id, number, document, digest, user_id, created_at) VALUES (?, 1, ?, repeat('0', 64), ?, now())",
        [$dataset->id, $plan, $person->id],
    );
    $owner->statement(
        "INSERT INTO runs (dataset_id, plan_version_id, source_delivery_id, target_delivery_id, state, user_id, created_at) SELECT ?, ".
            "p.id, s.id, t.id, 'done', ?, now() FROM plan_versions p, deliveries s, deliveries t WHERE s.side = 'source' AND t.side = ".
            "'target'",
        [$dataset->id, $person->id],
    );
    $owner->statement('SELECT open_findings(?)', [TALLY]);
    $rows = ROWS;
    $owner->statement(<<<SQL
        INSERT INTO row_findings_900 (tally_id, sequence, class, class_ordinal, side, key, identity, source_rows, target_rows, source_line,
            target_line, source_cells, target_cells, differing_cells)
        SELECT 900, n, class, row_number() OVER (PARTITION BY class ORDER BY n), CASE class WHEN 'missing' THEN 'source'
            WHEN 'extra' THEN 'target' WHEN 'repeated' THEN 'source' END,
            (ARRAY['KB','LM','NQ','OT','PW','RS','TH','UV'])[1 + n % 8] || ',' || n, decode(md5(n::text), 'hex'), 1, 1, n, n,
            CASE WHEN class <> 'extra' THEN ('["KB","' || n || '","Ezekiel Thornøy ' || n % 1000 || '","1412.60"]')::json END, CASE
                WHEN class <> 'missing' THEN ('["KB","' || n || '","EZEKIEL THORNØY","1412.6"]')::json END, CASE class
                WHEN 'changed' THEN 2 ELSE 0 END
        FROM (SELECT n, CASE WHEN n % 10 < 8 THEN 'changed' WHEN n % 60 < 39 THEN 'missing' WHEN n % 3 = 0 THEN 'extra'
            ELSE 'repeated' END AS class FROM generate_series(1, {$rows}) n) classed
        SQL);
    $owner->statement(<<<'SQL'
        INSERT INTO cell_findings_900
        SELECT 900, row_number() OVER (ORDER BY row_sequence, pattern), row_sequence, pattern, row_number() OVER (PARTITION BY pattern
            ORDER BY row_sequence), pattern % 10, (ARRAY['changed','blanked','filled'])[1 + pattern % 3],
            (ARRAY['case','none','sign','unicode'])[1 + pattern % 4],
            CASE WHEN pattern % 3 = 2 THEN '' ELSE 'Ezekiel Thornøy ' || row_sequence % 1000 END, CASE WHEN pattern % 3 = 1 THEN ''
                ELSE 'EZEKIEL THORNØY' END, decode(md5(row_sequence::text || pattern), 'hex')
        FROM (
            SELECT sequence AS row_sequence, 1 + floor(30 * power(((sequence * 2654435761 + cell * 400009) % 1000003) / 1000003.0,
                3))::int AS pattern
            FROM row_findings_900, generate_series(1, 2) cell WHERE class = 'changed' AND (cell = 1 OR sequence % 6 < 5)
        ) drawn GROUP BY row_sequence, pattern
        SQL);
    $began = microtime(true);
    $owner->statement('SELECT index_findings(?, 2, place) FROM generate_series(1, 8) place', [TALLY]);
    $owner->statement('SELECT seal_findings(?), attach_findings(?)', [TALLY, TALLY]);
    printf("indexes            %6.1f s\n", microtime(true) - $began);
    $owner->statement(
        <<<'SQL'
        INSERT INTO tallies SELECT 900, r.dataset_id, 1, r.id, r.plan_version_id, r.source_delivery_id, r.target_delivery_id,
            json_build_object(
            'rows', json_build_object('source', json_build_object('missing', (SELECT count(*) FROM row_findings_900
                WHERE class = 'missing'), 'changed', (SELECT count(*) FROM row_findings_900
                WHERE class = 'changed'), 'repeated', (SELECT count(*) FROM row_findings_900
                WHERE class = 'repeated'), 'unkeyed', 0, 'refused', 0, 'agreed', 0, 'prepared', 3400000, 'leftOut', 0, 'delivered',
                3400000, 'read', 3400000, 'made', 0, 'condensed', 0),
                'target', json_build_object('extra', (SELECT count(*) FROM row_findings_900
                    WHERE class = 'extra'), 'changed', 0, 'repeated', 0, 'unkeyed', 0, 'refused', 0, 'agreed', 0, 'prepared', 3400000,
                    'leftOut', 0, 'delivered', 3400000, 'read', 3400000, 'made', 0, 'condensed', 0)),
            'cells', '{}'::json,
            'figures', '{"rowsArrived": "80.00 %", "cellsAgreeingOverall": "70.00 %", "cellsAgreeing": "75.00 %"}'::json,
            'warnings', '[]'::json, 'engine', '{}'::json, 'madeOf', json_build_object('planVersion', 1, 'sourceDelivery', 1,
                'targetDelivery', 1, 'keyColumns', '["basin","berth"]'::json, 'startedBy', 'Ruth Osei')), 1, now(), now()
        FROM runs r
        SQL
        ,
    );
    $owner->statement(
        "INSERT INTO patterns SELECT 900, pattern_number, min(pair_position), 'pair-' || lpad((1 + min(pair_position))::text, 12, '0'), ".
            "'column_' || 1 + min(pair_position), 'column_' || 1 + min(pair_position), min(class), min(cause), json_build_object('n', ".
            "pattern_number), count(*), '[]' FROM cell_findings_900 GROUP BY pattern_number",
    );
    $owner->statement(
        "INSERT INTO standing_counts (tally_id, \"group\", findings) SELECT 900, 'pattern:' || number, cells FROM patterns ".
            "UNION ALL SELECT 900, 'class:' || class, count(*) FROM row_findings_900 WHERE class <> 'changed' GROUP BY class",
    );
    notePlaces($owner);
    $owner->statement('ANALYZE');
}

/** As a run does while it writes its findings. */
function notePlaces(Connection $owner): void
{
    $places = new GroupPostingBuilder;
    $enter = static fn(array $ended) => array_walk(
        $ended,
        static fn(GroupPostingBlock $part, string $group) => CopyText::into($owner, 'group_places', 'tally_id,part,"group",findings,rows', [
            CopyText::line([TALLY, $part->part, $group, CopyText::bytes($part->findings), CopyText::bytes($part->rows)]),
        ]),
    );
    for ($row = 0; $row < ROWS; $row += 100_000) {
        foreach (
            $owner->select(
                "SELECT 'class:' || class AS name, sequence AS row, 0 AS cell FROM row_findings_900 WHERE sequence > :after ".
                    "AND sequence <= :to UNION ALL SELECT 'pattern:' || pattern_number, row_sequence, sequence FROM cell_findings_900 ".
                    "WHERE row_sequence > :after AND row_sequence <= :to ORDER BY 2, 3",
                ['after' => $row, 'to' => $row + 100_000],
            )
            as $finding
        ) {
            $enter($places->add($finding->name, $finding->row));
        }
    }
    $enter($places->end());
}
