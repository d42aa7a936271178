<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** Does tasks of a tally's work, in any order. */
interface TaskExecutor
{
    /**
     * @param  list<string>  $tasks  names, as TallyWork gives them
     * @param  callable(string, int, int): void  $onProgress  task, bytes read of it and records read of it, so far
     * @param  callable(string): void  $onDone  task
     */
    public function perform(TallyWork $work, array $tasks, callable $onProgress, callable $onDone): void;
}
