<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Actions\Tally\AdvanceRun;
use App\Actions\Work\KeepGoing;
use App\Adapters\Runs\RunTasks;
use App\Adapters\Runs\RunWork;
use App\Models\Run;
use App\Models\RunPhase;
use App\Models\RunState;
use App\Models\Tally;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\Group;
use Tests\TestCase;

/** A run that is divided among workers: its tasks, as any of them may do, with each driver of the queue. */
#[Group('queue')]
final class TasksTest extends TestCase
{
    use QueuedRuns;

    protected function setUp(): void
    {
        parent::setUp();
        config(['nine-tally.small_bytes' => 0, 'nine-tally.workers' => 1]);
        $this->queueDriver() === 'redis' && $this->loseTheQueue();
    }

    public function test_no_two_workers_hold_one_task_and_what_is_done_is_not_given_again(): void
    {
        $run = $this->runWithTasks(['source-0', 'target-0']);
        $tasks = app(RunTasks::class);

        self::assertSame(RunPhase::Scan, $tasks->take($run->id, 'source-0', 'one'));
        self::assertNull($tasks->take($run->id, 'source-0', 'other'));
        self::assertSame(RunPhase::Scan, $tasks->take($run->id, 'source-0', 'one'), 'It takes up its own, as after its death.');
        $tasks->done($run->id, 'source-0', 10, 'digest');
        DB::table('run_tasks')->update(['seen_at' => now()->subMinute()]);
        self::assertNull($tasks->take($run->id, 'source-0', 'other'));
    }

    public function test_a_task_whose_worker_fell_silent_is_free_again_and_one_that_gives_signs_is_not(): void
    {
        $run = $this->runWithTasks(['source-0']);
        $tasks = app(RunTasks::class);
        $tasks->take($run->id, 'source-0', 'one');
        DB::table('run_tasks')->update(['seen_at' => now()->subMinute(), 'queued_at' => now()->subMinute()]);
        $tasks->isAlive('one');
        self::assertNull($tasks->take($run->id, 'source-0', 'other'));

        DB::table('run_tasks')->update(['seen_at' => now()->subMinute()]);
        self::assertSame(['source-0'], $tasks->ask($run, RunPhase::Scan, 2, true), 'Another is asked, and finds it left.');
        self::assertSame(RunPhase::Scan, $tasks->take($run->id, 'source-0', 'other'));
        $tasks->release($run->id, 'source-0', 'other');
        self::assertSame(RunPhase::Scan, $tasks->take($run->id, 'source-0', 'one'));
        self::assertSame([3, 3], [DB::table('run_tasks')->value('attempts'), $run->refresh()->attempts]);
    }

    public function test_nobody_begins_a_task_of_a_run_that_is_over(): void
    {
        $run = $this->runWithTasks(['source-0']);
        $this->api('POST', "/runs/{$run->id}/cancellation")->assertOk();

        self::assertNull(app(RunTasks::class)->take($run->id, 'source-0', 'one'));
        self::assertSame([], app(AdvanceRun::class)($run->id));
    }

    public function test_a_divided_run_finds_what_an_undivided_one_does_and_its_queue_stays_short(): void
    {
        $undivided = $this->undivided();
        $run = $this->queued();
        $most = 0;
        while ($this->waitingJobs() > 0) {
            $most = max($most, $this->waitingJobs());
            $this->work();
        }

        self::assertSame([RunState::Done, 2], [$run->refresh()->state, $most]);
        self::assertSame($undivided, $this->contentOf(Tally::query()->findOrFail($run->tally_id)));
        self::assertDirectoryDoesNotExist(storage_path("work/run-{$run->id}"));
    }

    public function test_a_queue_that_is_emptied_again_and_again_loses_nothing(): void
    {
        $undivided = $this->undivided();
        $run = $this->queued();
        for ($time = 0; ! $run->refresh()->state->isOver() && $time < 60; $time++) {
            $this->work();
            $this->work();
            $this->loseTheQueue();
            DB::table('run_tasks')->update(['seen_at' => now()->subMinute(), 'queued_at' => now()->subMinute()]);
            Run::query()->update(['created_at' => now()->subMinute()]);
            app(KeepGoing::class)();
        }

        self::assertSame(RunState::Done, $run->refresh()->state);
        self::assertSame($undivided, $this->contentOf(Tally::query()->findOrFail($run->tally_id)));
    }

    public function test_results_that_are_damaged_or_gone_are_made_again(): void
    {
        $undivided = $this->undivided();
        $run = $this->queued();
        $damaged = [];
        while ($this->waitingJobs() > 0) {
            $this->work();
            $results = glob(storage_path("work/run-{$run->id}/tasks/*.result")) ?: [];
            foreach (array_slice($results, 0, $this->waitingJobs() === 1 ? 2 : 0) as $nth => $path) {
                $name = basename($path);
                if (! isset($damaged[$name])) {
                    $damaged[$name] = true;
                    $nth === 0 ? file_put_contents($path, 'x', FILE_APPEND) : unlink($path);
                }
            }
        }

        self::assertNotSame([], $damaged);
        self::assertSame(RunState::Done, $run->refresh()->state, (string) $run->problem);
        self::assertSame($undivided, $this->contentOf(Tally::query()->findOrFail($run->tally_id)));
    }

    public function test_a_task_that_fails_three_times_fails_its_run_with_a_reason(): void
    {
        $run = $this->queued();
        $this->work();
        // The place of its folder is taken, so nothing can be written.
        file_put_contents(storage_path("work/run-{$run->id}"), '');
        for ($time = 0; ! $run->refresh()->state->isOver() && $time < 9; $time++) {
            $this->work();
        }
        unlink(storage_path("work/run-{$run->id}"));

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'failed', 'tallyId' => null]);
        self::assertStringContainsString('free disk space', (string) $run->problem);
        self::assertSame([0, 3], [$this->waitingJobs(), $run->attempts]);
    }

    /** @return list<mixed> what the two sides give when one worker does all */
    private function undivided(): array
    {
        $this->prepared();
        config(['nine-tally.small_bytes' => PHP_INT_MAX]);
        $run = $this->queued();
        $this->work();
        config(['nine-tally.small_bytes' => 0]);
        app()->forgetInstance(RunWork::class);

        return $this->contentOf(Tally::query()->where('run_id', $run->id)->firstOrFail());
    }

    /** @param list<string> $names */
    private function runWithTasks(array $names): Run
    {
        $run = $this->queued();
        app(RunTasks::class)->open($run, RunPhase::Scan, $names);

        return $run;
    }
}
