<?php

declare(strict_types=1);

/*
 * What Review costs on a tally of five million findings: each kind of request many times over, through the application in this process.
 * Run by bin/bench-review, on a database of its own.
 */

use App\Adapters\Database\CopyText;
use App\Models\Decision;
use App\Models\Migration;
use App\Models\Role;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Models\User;
use App\Rulings\FindingSet\Filter;
use App\Rulings\NewRuling;
use App\Rulings\RuleOn;
use App\Rulings\UndoRuling;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Contracts\Http\Kernel as HttpKernel;
use Illuminate\Database\Connection;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;

require dirname(__DIR__).'/vendor/autoload.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();
ini_set('memory_limit', '1G');

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
    $owner->statement('SELECT index_findings(?, 2), attach_findings(?)', [TALLY, TALLY]);
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
            'cells', '{}'::json, 'figures', '{}'::json, 'warnings', '[]'::json, 'engine', '{}'::json, 'madeOf',
                json_build_object('planVersion', 1, 'sourceDelivery', 1, 'targetDelivery', 1, 'keyColumns', '["basin","berth"]'::json,
                'startedBy', 'Ruth Osei')), 1, now(), now()
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

/** @return array{float, string} milliseconds, and the content */
function ask(string $path): array
{
    $request = Request::create("/api/v1{$path}", server: ['HTTP_ACCEPT' => 'application/json']);
    $began = microtime(true);
    $response = app(HttpKernel::class)->handle($request);
    $took = (microtime(true) - $began) * 1000;
    if ($response->getStatusCode() >= 400) {
        throw new RuntimeException("{$path}: {$response->getContent()}");
    }

    return [$took, (string) $response->getContent()];
}

/** @param list<float> $times */
function percentile(array $times, float $share): float
{
    sort($times);

    return $times[(int) floor((count($times) - 1) * $share)];
}

if (Tally::query()->find(TALLY) === null) {
    makeTally();
}
DB::connection('owner')->statement('VACUUM (ANALYZE) ruling_members, standings');
DB::connection('owner')->statement('DELETE FROM counted_filters');
Auth::setUser(User::query()->firstOrFail());
$tally = '/tallies/'.TALLY;
mt_srand(7);
$findings =
    DB::table('cell_findings')
        ->where('tally_id', TALLY)
        ->count() +
    DB::table('row_findings')
        ->where('tally_id', TALLY)
        ->where('class', '!=', 'changed')
        ->count();
$largest = (int) DB::table('patterns')->max('cells');
$rare = (int) DB::table('patterns')->orderBy('cells')->value('number');
printf("%s findings\n| request | times | median ms | p95 ms |\n| --- | --- | --- | --- |\n", number_format($findings));
$page = static fn(string $filter, int $most): Closure => static fn(): string => "{$tally}/findings?limit=200&{$filter}".
    ($most === 0 ? '' : '&from='.mt_rand(1, $most));
foreach (
    [
        'opening Review' => [static fn(): string => $tally, 40],
        'first page of all rows' => [$page('', 0), 40],
        'first page of a class' => [$page('class=missing', 0), 40],
        'first page of a pattern' => [$page("pattern={$rare}", 0), 40],
        'first page of a column pair' => [$page('pair=pair-000000000004', 0), 40],
        'first page of a cause' => [$page('cause=sign', 0), 40],
        'first page of a ruling, none' => [$page('of=cells&ruling=defect', 0), 40],
        'first page of a ruling, open' => [$page('of=cells&ruling=open', 0), 40],
        'first page of a part of the key' => [$page('keyColumn=1&key=LM', 0), 40],
        'first page of cells by part of the key' => [$page('of=cells&keyColumn=1&key=LM', 0), 40],
        'first page of one berth' => [
            static fn(): string => "{$tally}/findings?limit=200&of=cells&keyColumn=2&key=".mt_rand(1, ROWS),
            40,
        ],
        'a jump anywhere in all rows' => [$page('', ROWS - 200), 100],
        'a jump anywhere in the largest pattern' => [$page('pattern=1', $largest - 200), 100],
        'a record' => [static fn(): string => "{$tally}/records/".mt_rand(1, ROWS), 100],
        'a key' => [static fn(): string => "{$tally}/keys?find=KB,".mt_rand(1, ROWS), 100],
    ]
    as $what => [$path, $times]
) {
    $taken = [];
    ask($path());
    for ($time = 0; $time < $times; $time++) {
        $taken[] = ask($path())[0];
    }
    printf("| %s | %d | %.1f | %.1f |\n", $what, $times, percentile($taken, 0.5), percentile($taken, 0.95));
}
echo "\n| counted, or a text looked for, each once | ms |\n| --- | --- |\n";
foreach (
    [
        'count of a column pair' => 'pair=pair-000000000004',
        'count of a cause among open cells' => 'cause=case&ruling=open',
        'count of cells by part of the key' => 'of=cells&keyColumn=1&key=LM',
        'count of a pattern by part of the key' => 'pattern=1&keyColumn=1&key=LM',
        'count of a text in few cells' => 'of=cells&text=Thorn%C3%B8y%20777',
        'count of a text in few rows' => 'text=Thorn%C3%B8y%20777',
    ]
    as $what => $filter
) {
    [$first] = ask("{$tally}/findings?limit=200&{$filter}");
    [$took, $answer] = ask("{$tally}/findings/count?{$filter}");
    $total = (int) (json_decode($answer, true)['total'] ?? 0);
    $jumps = array_map(
        static fn(): float => ask("{$tally}/findings?limit=200&{$filter}&from=".mt_rand(1, max(1, $total - 200)))[0],
        range(1, 30),
    );
    printf(
        "| %s (%s), first page %.0f ms, then a jump anywhere p95 %.1f ms | %.0f |\n",
        $what,
        number_format($total),
        $first,
        percentile($jumps, 0.95),
        $took,
    );
}
echo "\n";
foreach (
    [
        'a column pair' => 'pair=pair-000000000004',
        'cells by part of the key' => 'of=cells&keyColumn=1&key=LM',
        'a ruling, open' => 'of=cells&ruling=open',
    ]
    as $what => $filter
) {
    DB::flushQueryLog();
    DB::enableQueryLog();
    ask("{$tally}/findings?limit=200&{$filter}");
    DB::disableQueryLog();
    foreach (DB::getRawQueryLog() as $query) {
        if (str_contains($query['raw_query'], 'findings" as "f"')) {
            printf(
                "%s\n%s\n",
                $what,
                implode(
                    "\n",
                    array_map(
                        static fn(stdClass $line): string => '    '.current((array) $line),
                        DB::select('EXPLAIN (ANALYZE, COSTS OFF, TIMING OFF, SUMMARY OFF) '.$query['raw_query']),
                    ),
                ),
            );
        }
    }
}
echo "\n| ruled on | findings | s | then the first page of | median ms | count ms |\n| --- | --- | --- | --- | --- | --- |\n";
$rule = static function (RulingScope $scope, string $target, ?Filter $filter = null) use ($tally): void {
    $entered = Tally::query()->findOrFail(TALLY);
    $person = User::query()->firstOrFail();
    $began = microtime(true);
    $act = app(RuleOn::class)($entered, new NewRuling($scope, $target, $filter, Decision::Expected, 'bench', PHP_INT_MAX), $person);
    printf("| %s | %s | %.1f | | | |\n", $scope->value, number_format($act->findings), microtime(true) - $began);
    foreach (
        $act->findings === 1
            ? []
            : [
                'of=cells&ruling=expected',
                'of=cells&ruling=open',
                'of=cells&ruling=defect',
                'ruling=expected',
                'ruling=open',
                "of=cells&act={$act->id}",
                'of=cells&ruling=expected&pair=pair-000000000004',
            ]
        as $list
    ) {
        $pages = array_map(static fn(): float => ask("{$tally}/findings?limit=200&{$list}")[0], range(1, 7));
        [$took, $answer] = ask("{$tally}/findings/count?{$list}");
        printf(
            "| | | | %s, %s | %.0f | %.0f |\n",
            str_replace("={$act->id}", '', $list),
            number_format((int) (json_decode($answer, true)['total'] ?? 0)),
            percentile($pages, 0.5),
            $took,
        );
    }
    $began = microtime(true);
    app(UndoRuling::class)($act, $person);
    printf("| its undo | %s | %.1f | | | |\n", number_format($act->findings), microtime(true) - $began);
};
$half = (int) DB::table('patterns')->where('tally_id', TALLY)->orderByRaw('abs(cells - 500000)')->value('number');
$rule(RulingScope::Cell, '5');
$rule(RulingScope::Pattern, (string) $half);
$rule(RulingScope::Filter, '', Filter::from(['pattern' => 1, 'keyColumn' => 1, 'key' => 'LM']));
$rule(RulingScope::Filter, '', Filter::from(['of' => 'cells', 'keyColumn' => 1, 'key' => 'LM']));
