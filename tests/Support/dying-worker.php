<?php

declare(strict_types=1);

// A worker that is killed (SIGKILL, nothing is cleared up) at its nth statement to the database; it says how many there were
// when it was not. For WorkersTest.

use App\Jobs\WorkOnRun;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Foundation\Application;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__, 2).'/vendor/autoload.php';
/** @var Application $application */
$application = require dirname(__DIR__, 2).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();
[, $run, $moment] = $argv;
$statements = 0;
config(['nine-tally.memory' => 16 * 1024 * 1024]);
DB::listen(static function (QueryExecuted $query) use ($moment, &$statements): void {
    if (++$statements === (int) $moment) {
        posix_kill(posix_getpid(), SIGKILL);
    }
});
$application->call([new WorkOnRun((int) $run), 'handle']);
echo $statements;
