<?php

declare(strict_types=1);

// A worker that is killed (SIGKILL, nothing is cleared up) at the moment when its run enters a state. For TallyTest.

use App\Jobs\RunTally;
use Illuminate\Contracts\Console\Kernel;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Foundation\Application;
use Illuminate\Support\Facades\DB;

require dirname(__DIR__, 2).'/vendor/autoload.php';
/** @var Application $application */
$application = require dirname(__DIR__, 2).'/bootstrap/app.php';
$application->make(Kernel::class)->bootstrap();
[, $run, $state] = $argv;
DB::listen(static function (QueryExecuted $query) use ($state): void {
    if (str_starts_with($query->sql, 'update "runs"') && ($query->bindings[0] ?? null) === $state) {
        posix_kill(posix_getpid(), SIGKILL);
    }
});
$application->call([new RunTally((int) $run), 'handle']);
