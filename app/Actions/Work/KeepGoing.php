<?php

declare(strict_types=1);

namespace App\Actions\Work;

use App\Adapters\Database\FindingTables;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Adapters\Storage\WorkbookFiles;
use App\Jobs\Patience;
use App\Jobs\WorkOnRun;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Contracts\Queue\Queue;
use Illuminate\Database\Connection;

/**
 * Looks every few seconds for what nobody is at work on although somebody waits for it, and clears up what is left over. A worker that
 * dies needs none of this: its queue gives what it held to another. Here is what a queue itself has lost.
 */
final readonly class KeepGoing
{
    public function __construct(
        private Queue $queue,
        private Connection $database,
        private RunTasks $tasks,
        private LostWork $lostWork,
        private RunWork $work,
        private FindingTables $tables,
        private PreparedSides $sides,
        private WorkbookFiles $workbooks,
        private int $keepPreparedSeconds,
    ) {}

    public function __invoke(): void
    {
        foreach ($this->tasks->silentRuns() as $run) {
            // A long queue is silent too, but it holds a job for each task.
            if ($this->queue->size(Patience::Run->value) < max(1, $this->tasks->asked())) {
                WorkOnRun::dispatch($run);
            }
        }
        ($this->lostWork)();
        $this->work->clearUp();
        $over = Run::query()->whereNotIn('state', RunState::goingOn())->select('id');
        $this->database->table('run_tasks')->whereIn('run_id', $over)->delete();
        $this->tables->dropForgotten();
        $this->sides->clearUp($this->keepPreparedSeconds);
        $this->workbooks->clearUp();
    }
}
