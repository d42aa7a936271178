<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Runs\RunWork;
use App\Adapters\Runs\TaskLease;
use App\Adapters\Runs\TaskOfRun;
use App\Logging\ReducedException;
use App\Models\Run;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Database\Connection;
use Illuminate\Foundation\Queue\Queueable;

/**
 * Helps with a run: does its free tasks until there is none. What goes wrong is left to the worker that leads the run, who meets it too.
 */
final class WorkOnRun implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public function __construct(private readonly int $runId) {}

    public function handle(RunWork $runWork, Connection $database, Repository $settings): void
    {
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state->isOver()) {
            return;
        }
        $task = null;
        try {
            $work = $runWork->of($run);
            while (($task = TaskLease::take($database, $run->id, $settings->integer('nine-tally.lease_seconds'))) !== null) {
                TaskOfRun::perform($work, $task);
            }
        } catch (\Throwable $failure) {
            $task?->release();
            logger()->warning('a helper gave up', ['run' => $this->runId, ...ReducedException::of($failure)]);
        }
    }
}
