<?php

declare(strict_types=1);

/*
 * What Review costs on a tally of five million findings: each kind of request many times over, through the application in this process.
 * Run by bin/bench-review, on a database of its own.
 */

use App\Actions\Review\MakeCorrections;
use App\Models\Decision;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Review\FindingsOfAct;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\DefectTable;
use App\Queries\TakeAway\TableText;
use App\Questions\DefectHistory;
use App\Questions\QuestionContext;
use App\Rulings\FindingSet\Filter;
use App\Rulings\NewRuling;
use App\Rulings\RuleOn;
use App\Rulings\UndoRuling;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Contracts\Http\Kernel as HttpKernel;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/review-tally.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();
ini_set('memory_limit', '1G');

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
        'every ruling on a record' => [static fn(): string => "{$tally}/records/".mt_rand(1, ROWS).'/rulings', 40],
        'value pairs of a pattern' => [static fn(): string => "{$tally}/patterns/{$rare}/value-pairs", 10],
        'value pairs of a part of the key' => [
            static fn(): string => "{$tally}/patterns/{$rare}/value-pairs?keyColumn=1&key=LM",
            10,
        ],
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
    $ruling = new NewRuling($scope, $target, $filter, Decision::Expected, 'bench');
    $act = app(RuleOn::class)($entered, $ruling, PHP_INT_MAX, $person);
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

echo "\n| defects | s |\n| --- | --- |\n";
$entered = Tally::query()->with(['dataset', 'planVersion'])->findOrFail(TALLY);
$person = User::query()->firstOrFail();
$acts = array_map(
    static fn(NewRuling $ruling): Ruling => app(RuleOn::class)($entered, $ruling, PHP_INT_MAX, $person),
    [
        new NewRuling(RulingScope::Pattern, (string) $half, null, Decision::Defect, 'bench'),
        new NewRuling(RulingScope::RowClass, 'missing', null, Decision::Defect, 'bench'),
    ],
);
$defects = number_format(array_sum(array_column($acts, 'findings')));
$timed = static function (string $what, Closure $work): void {
    $began = microtime(true);
    $work();
    printf("| %s | %.1f |\n", $what, microtime(true) - $began);
};
$timed("what became of {$defects} findings in the tally", static function () use ($entered): void {
    DefectHistory::of($entered->dataset)?->answer(app(QuestionContext::class), static fn(): null => null);
});
$timed("corrections of {$defects} findings", static function () use ($entered, $acts, $person): void {
    app(MakeCorrections::class)($entered->dataset, array_column($acts, 'id'), $person);
});
$timed("{$defects} findings with their identities, as CSV", static function () use ($entered): void {
    $table = new DefectTable($entered, app(Masks::class)->none(), app(FindingsOfAct::class), DB::connection());
    foreach ((new TableText($table))->csv(forSpreadsheets: false) as $line) {
    }
});
array_map(static fn(Ruling $act): Ruling => app(UndoRuling::class)($act, $person), $acts);
DB::connection('owner')->statement('TRUNCATE correction_sets, correction_lines');
