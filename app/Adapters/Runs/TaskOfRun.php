<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use NineTally\Core\Tally\TallyWork;

/** Does a task that is held, with signs of life. */
final readonly class TaskOfRun
{
    /** @param (callable(int, int): void)|null $onProgress bytes and records read of the task so far */
    public static function perform(TallyWork $work, TaskLease $task, ?callable $onProgress = null): void
    {
        $bytes = $records = 0;
        $work->perform($task->name, static function (int $bytesRead, int $recordsRead) use (&$bytes, &$records, $task, $onProgress): void {
            [$bytes, $records] = [$bytesRead, $recordsRead];
            $task->progress($bytes, $records);
            $onProgress === null || $onProgress($bytes, $records);
        });
        $task->done($bytes, $records);
    }
}
