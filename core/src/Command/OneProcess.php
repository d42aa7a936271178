<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\Tally\TallyWork;
use NineTally\Core\Tally\TaskExecutor;

/** Does one task after the other in this process, and slices of the findings as well. */
final readonly class OneProcess implements TaskExecutor
{
    public function __construct(private SliceWork $slices) {}

    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
    {
        $all = new WorkspaceTasks($work, $this->slices);
        foreach ($tasks as $task) {
            $all->perform($task, static fn(int $bytes, int $records) => $onProgress($task, $bytes, $records));
            $onDone($task);
        }
    }
}
