<?php

declare(strict_types=1);

/*
 * Begins work of each kind in turn, kills a worker or a backend of the database at a random moment, and waits until the work is done or
 * says that it failed. Run by bin/kills, on an installation of its own with the demo in it.
 */

use App\Actions\Access\TrailChain;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__).'/vendor/autoload.php';
$application = require dirname(__DIR__).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();

[, $times, $seed, $only] = $argv + [3 => ''];
mt_srand((int) $seed);
const SECONDS = 30;
// A draw goes on at looks that are five seconds apart, of which it has five.
const OF_DRAWS = 60;
/** @var array<string, Closure(): Closure(): ?string> $kinds */
$kinds = require __DIR__.'/kinds-of-work.php';
$kinds = $only === '' ? $kinds : array_intersect_key($kinds, [$only => true]);

/** @return string what was killed */
function killed(): string
{
    if (mt_rand(0, 2) === 0) {
        $ended = DB::select(
            "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE usename = 'tally_app' AND datname = 'nine_tally' AND ".
                'pid <> pg_backend_pid()',
        );

        return count($ended).' backends';
    }
    $workers = array_values(array_filter(
        glob('/proc/[0-9]*') ?: [],
        static fn(string $process): bool => str_contains((string) @file_get_contents("{$process}/cmdline"), 'queue:work') &&
            str_contains((string) @file_get_contents("{$process}/environ"), 'NINE_TALLY_HOME='.getenv('NINE_TALLY_HOME')),
    ));
    $killed = $workers === [] ? [] : array_slice($workers, mt_rand(0, count($workers) - 1), 1);
    if (mt_rand(0, 2) === 0) {
        $killed = $workers;
    }
    foreach ($killed as $process) {
        posix_kill((int) basename($process), SIGKILL);
    }

    return count($killed).' processes';
}

$ends = [];
$slowest = 0.0;
for ($time = 1; $time <= (int) $times; $time++) {
    $kind = array_keys($kinds)[$time % count($kinds)];
    try {
        $state = $kinds[$kind]();
        usleep(mt_rand(0, 1_500_000));
        $what = killed();
        $began = microtime(true);
        do {
            usleep(200_000);
            try {
                $end = $state();
            } catch (Throwable) {
                DB::reconnect();
                $end = null;
            }
        } while ($end === null && microtime(true) - $began < 3 * SECONDS);
    } catch (Throwable $problem) {
        [$end, $what, $began] = ['WRONG: '.$problem->getMessage(), '', microtime(true)];
    }
    $seconds = microtime(true) - $began;
    $slowest = max($slowest, $seconds);
    $verdict =
        $end === null
            ? 'STUCK'
            : ($seconds > ($kind === 'draw' ? OF_DRAWS : SECONDS)
                ? 'LATE'
                : ($end === 'done'
                    ? 'done'
                    : (str_starts_with($end, 'WRONG')
                        ? 'WRONG'
                        : 'said so')));
    $ends[$kind][$verdict] = ($ends[$kind][$verdict] ?? 0) + 1;
    if ($verdict !== 'done') {
        printf("%d %s, %s killed, %.1f s: %s %s\n", $time, $kind, $what, $seconds, $verdict, $end ?? '');
    }
}
printEnds($ends);
printf("trail: %s\n", app(TrailChain::class)->verify()['broken'] ?? 'the chain holds');
printf("slowest %.1f s\n", $slowest);
exit(array_filter($ends, static fn(array $counts): bool => array_diff_key($counts, ['done' => 0, 'said so' => 0]) !== []) === [] ? 0 : 1);
