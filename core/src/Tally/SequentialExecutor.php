<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** Does one task after the other in this process. */
final readonly class SequentialExecutor implements TaskExecutor
{
    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void
    {
        foreach ($tasks as $task) {
            $work->perform($task, static fn(int $bytes, int $records) => $onProgress($task, $bytes, $records));
            $onDone($task);
        }
    }
}
