<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

use App\Adapters\Database\Interval;
use App\Models\RunPhase;
use NineTally\Core\Tally\Phase;
use NineTally\Core\Tally\Progress;
use NineTally\Core\Tally\ProgressReport;
use NineTally\Core\Tally\TallyCancelled;
use NineTally\Core\Tally\TallyRun;

/** How far a task of a run is, told once a second; and the worker is told whether anybody still wants it. */
final class TaskSigns implements Progress
{
    private const SECONDS_BETWEEN = 1.0;

    private readonly Interval $interval;

    private int $records = 0;

    public function __construct(
        private readonly RunTasks $tasks,
        private readonly int $runId,
        private readonly string $task,
        private readonly RunPhase $phase,
    ) {
        $this->interval = new Interval(self::SECONDS_BETWEEN);
    }

    /**
     * @param  float  $share  of the task, from 0 to 1
     *
     * @throws TallyCancelled when nobody wants the run any more
     */
    public function give(float $share, int $records = 0): void
    {
        $this->records = $records;
        if ($this->interval->isOver()) {
            $this->tasks->sign($this->runId, $this->task, $this->phase, min(1.0, $share), $records);
        }
    }

    /** While findings are merged: the engine tells of all its work, and everything before is done. */
    public function report(ProgressReport $report): void
    {
        if ($report->phase === Phase::Merging) {
            $this->give(($report->done - TallyRun::SHARE_OF_TASKS) / (1 - TallyRun::SHARE_OF_TASKS));
        }
    }

    /** @param string|null $digest of what the task left */
    public function done(?string $digest): void
    {
        $this->tasks->done($this->runId, $this->task, $this->records, $digest);
        $this->tasks->show($this->runId, $this->phase);
    }
}
