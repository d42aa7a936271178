<?php

declare(strict_types=1);

namespace App\Actions\Work;

use App\Adapters\Database\FindingTables;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Queue\WorkerSigns;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Adapters\Storage\WorkbookFiles;

/** Removes what is left of work that is over, because whoever was at it died, and what nobody has used or taken for long. */
final readonly class ClearUp
{
    /** A worker notes every few seconds that it is there. */
    private const SILENT_SECONDS = 60;

    public function __construct(
        private RunTasks $tasks,
        private RunWork $work,
        private FindingTables $tables,
        private PreparedSides $sides,
        private WorkbookFiles $workbooks,
        private WorkerSigns $workers,
        private int $keepPreparedSeconds,
    ) {}

    public function __invoke(): void
    {
        $this->work->clearUp();
        $this->tasks->clearUp();
        $this->tables->dropForgotten();
        $this->sides->clearUp($this->keepPreparedSeconds);
        $this->workbooks->clearUp();
        $this->workers->clearUp(self::SILENT_SECONDS);
    }
}
