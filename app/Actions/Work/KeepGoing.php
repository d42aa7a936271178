<?php

declare(strict_types=1);

namespace App\Actions\Work;

use App\Adapters\Runs\RunTasks;
use App\Jobs\Patience;
use App\Jobs\WorkOnRun;
use Illuminate\Contracts\Queue\Queue;

/**
 * Looks every few seconds for what nobody is at work on although somebody waits for it, and has cleared up what is left over. A worker
 * that dies needs none of this: its queue gives what it held to another. Here is what a queue itself has lost.
 */
final readonly class KeepGoing
{
    public function __construct(private Queue $queue, private RunTasks $tasks, private LostWork $lostWork, private ClearUp $clearUp) {}

    public function __invoke(): void
    {
        foreach ($this->tasks->silentRuns() as $run) {
            // A long queue is silent too, but it holds a job for each task.
            if ($this->queue->size(Patience::Run->value) < max(1, $this->tasks->asked())) {
                WorkOnRun::dispatch($run);
            }
        }
        ($this->lostWork)();
        ($this->clearUp)();
    }
}
