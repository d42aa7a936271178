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
        foreach ($tasks as $task) {
            $told = static fn(int $bytes, int $records) => $onProgress($task, $bytes, $records);
            SliceWork::isTask($task) ? $this->slices->perform($task, $told) : $work->perform($task, $told);
            $onDone($task);
        }
    }
}
