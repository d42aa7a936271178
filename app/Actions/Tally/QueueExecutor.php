<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Runs\RunLease;
use App\Adapters\Runs\TaskLease;
use App\Adapters\Runs\TaskOfRun;
use App\Jobs\WorkOnRun;
use Illuminate\Database\Connection;
use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;

/**
 * Divides the tasks of a run among queue workers, on this machine or on others that share database and storage. Whoever leads
 * the run works too, so it ends even when nobody comes to help, and takes over the tasks of helpers who fell silent.
 */
final readonly class QueueExecutor implements TaskExecutor
{
    private const SECONDS_BETWEEN_LOOKS = 0.5;

    private const PAUSE_MICROSECONDS = 50_000;

    public function __construct(private Connection $database, private RunLease $lease, private int $helpers, private int $leaseSeconds) {}

    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
    {
        if ($tasks === []) {
            return;
        }
        $runId = $this->lease->run()->id;
        $this->enter($runId, $tasks, $work);
        for ($helper = 0; $helper < min($this->helpers, count($tasks) - 1); $helper++) {
            WorkOnRun::dispatch($runId);
        }
        $waiting = array_fill_keys($tasks, true);
        $looked = microtime(true);
        while ($waiting !== []) {
            $task = TaskLease::take($this->database, $runId, $this->leaseSeconds);
            if ($task !== null) {
                TaskOfRun::perform($work, $task, static fn(int $bytes, int $records) => $onProgress($task->name, $bytes, $records));
                unset($waiting[$task->name]);
                $onDone($task->name);
            }
            if ($task === null || microtime(true) - $looked > self::SECONDS_BETWEEN_LOOKS) {
                $this->lookAtOthers($runId, $waiting, $onProgress, $onDone);
                $looked = microtime(true);
            }
            if ($task === null && $waiting !== []) {
                $this->lease->heartbeat();
                usleep(self::PAUSE_MICROSECONDS);
            }
        }
    }

    /** @param list<string> $tasks */
    private function enter(int $runId, array $tasks, TallyWork $work): void
    {
        foreach ($tasks as $name) {
            $isDone = $work->isDone($name);
            // What a worker did before it died is done; what it only entered is not.
            $this->database->statement(<<<'SQL'
                INSERT INTO run_tasks (run_id, name, done_at) VALUES (?, ?, CASE WHEN ? THEN now() END)
                ON CONFLICT (run_id, name) DO UPDATE SET done_at = CASE
                    WHEN ? THEN coalesce(run_tasks.done_at, now()) END, worker = NULL, lease_expires_at = NULL
                SQL, [$runId, $name, $isDone, $isDone]);
        }
    }

    /**
     * @param  array<string, true>  $waiting  tasks that are not known to be done; those that are leave it
     * @param  callable(string, int, int): void  $onProgress
     * @param  callable(string): void  $onDone
     */
    private function lookAtOthers(int $runId, array &$waiting, callable $onProgress, callable $onDone): void
    {
        foreach ($this->database->table('run_tasks')->where('run_id', $runId)->orderBy('name')->get() as $found) {
            $task = DatabaseRow::of($found);
            $name = $task->text('name');
            if (! isset($waiting[$name])) {
                continue;
            }
            if ($task->int('bytes_read') > 0) {
                $onProgress($name, $task->int('bytes_read'), $task->int('records_read'));
            }
            if ($task->textOrNull('done_at') !== null) {
                unset($waiting[$name]);
                $onDone($name);
            }
        }
    }
}
