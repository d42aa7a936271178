<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\TallyWork;

/** Any task of a workspace, by its name: reading, matching, and slices of the findings. */
final readonly class WorkspaceTasks
{
    public function __construct(private TallyWork $work, private SliceWork $slices) {}

    /** For a process that is told nothing but where the workspace is. */
    public static function in(string $workspace): self
    {
        return new self(WorkOrder::read($workspace), new SliceWork($workspace));
    }

    /** @param callable(int, int): void $onProgress bytes of this task, and records or findings, so far */
    public function perform(string $task, callable $onProgress): void
    {
        SliceWork::isTask($task) ? $this->slices->perform($task, $onProgress) : $this->work->perform($task, $onProgress);
    }
}
