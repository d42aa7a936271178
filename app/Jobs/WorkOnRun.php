<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Tally\AdvanceRun;
use App\Actions\Tally\EndRun;
use App\Actions\Tally\PerformTask;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Logging\ReducedException;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use Illuminate\Queue\Jobs\SyncJob;
use Illuminate\Queue\MaxAttemptsExceededException;
use NineTally\Core\NineTallyException;
use NineTally\Core\Tally\TallyCancelled;

/** Does a task of a run and asks for those that follow: of a small run all of them itself. Run again it finds its work done. */
final class WorkOnRun implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $backoff = 1;

    public int $timeout = 6 * 3600;

    /** So long a job goes on with tasks of the kind that it has done: a job for each costs more than many of them, and other runs wait. */
    private const SECONDS_AT_ONCE = 1.0;

    /** @param string|null $task null: whatever is to be done, also what somebody else began and gave no sign of for long */
    public function __construct(private readonly int $runId, private readonly ?string $task = null)
    {
        $this->onQueue(Patience::Run->value);
    }

    public function handle(AdvanceRun $advance, PerformTask $perform, RunTasks $tasks, RunWork $work, EndRun $end): void
    {
        $run = Run::query()->find($this->runId);
        if ($run === null || $run->state->isOver()) {
            return;
        }
        $doing = null;
        $until = microtime(true) + self::SECONDS_AT_ONCE;
        try {
            $next = $this->task === null ? $this->divided($work, $run, $advance($run->id, true)) : [$this->task];
            while ($next !== []) {
                foreach ($next as $doing) {
                    $perform($run->id, $doing, $this->worker());
                }
                $next = $this->divided($work, $run, $advance($run->id), microtime(true) < $until ? $doing : null);
            }
        } catch (TallyCancelled) {
            // Whoever ended the run has said so.
        } catch (NineTallyException $problem) {
            $end($run, RunState::Failed, $problem->getMessage());
        } catch (\Throwable $failure) {
            $this->failedOnce($failure, $run, $doing, $tasks, $end);
        }
        if ($run->refresh()->state->isOver()) {
            $end->clearUp($run);
        }
    }

    /** After the last attempt, when nobody came back to say what happened. */
    public function failed(?\Throwable $failure): void
    {
        $run = Run::query()->find($this->runId);
        if ($run !== null) {
            app(EndRun::class)($run, RunState::Failed, self::problem($failure instanceof MaxAttemptsExceededException));
        }
    }

    /**
     * A large run is divided among all workers by jobs.
     *
     * @param  list<string>  $tasks
     * @param  string|null  $done  the task that this worker has just done, if it goes on with one like it
     * @return list<string> tasks that this worker goes on with
     */
    private function divided(RunWork $work, Run $run, array $tasks, ?string $done = null): array
    {
        if ($work->isSmall($run)) {
            return $tasks;
        }
        $kind = static fn(string $task): string => explode('-', $task)[0];
        $own = $done !== null && $tasks !== [] && $kind($tasks[0]) === $kind($done) ? [$tasks[0]] : [];
        foreach (array_slice($tasks, count($own)) as $task) {
            self::dispatch($run->id, $task);
        }

        return $own;
    }

    private function failedOnce(\Throwable $failure, Run $run, ?string $task, RunTasks $tasks, EndRun $end): void
    {
        logger()->error('task failed', ['run' => $run->id, 'task' => $task ?? '', ...ReducedException::of($failure)]);
        if ($run->refresh()->state->isOver()) {
            return;
        }
        $task === null || $tasks->release($run->id, $task, $this->worker());
        if ($task !== null && $this->task !== null && $task !== $this->task) {
            // It was gone on with: from here on it has a job, and attempts, of its own.
            self::dispatch($run->id, $task);

            return;
        }
        $isLast = $this->job === null || $this->job instanceof SyncJob || $this->attempts() >= $this->tries;
        if (! $isLast) {
            $this->release($this->backoff);

            return;
        }
        $end($run, RunState::Failed, self::problem(false));
    }

    /** The same after its worker died: it takes its own task up again. */
    private function worker(): string
    {
        return $this->job?->uuid() ?? 'process '.getmypid();
    }

    private static function problem(bool $hasDied): string
    {
        return $hasDied
            ? 'The tally was begun three times, and its worker ended each time, most likely for want of memory. Nothing of it was kept. '.
                'Try again; if it fails again, tell whoever runs Nine Tally.'
            : 'The tally met a problem that it did not expect, and nothing of it was kept. Try again; if it fails again, look at the '.
                'free disk space and tell whoever runs Nine Tally.';
    }
}
