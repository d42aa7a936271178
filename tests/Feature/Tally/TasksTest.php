<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Adapters\Runs\RunLease;
use App\Adapters\Runs\RunWork;
use App\Adapters\Runs\TaskLease;
use App\Jobs\WorkOnRun;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\TestCase;

/** The tasks of a run, as its leader and its helpers share them. */
final class TasksTest extends TestCase
{
    public function test_no_two_workers_hold_one_chunk_and_what_is_done_is_not_given_again(): void
    {
        $run = $this->runWithTasks(['source-0', 'target-0']);
        $first = $this->take($run);
        $second = $this->take($run);

        self::assertSame(['source-0', 'target-0', null], [$first?->name, $second?->name, $this->take($run)?->name]);
        $first?->done(100, 10);
        DB::table('run_tasks')->update(['lease_expires_at' => now()->subSecond()]);
        self::assertSame(['target-0', null], [$this->take($run)?->name, $this->take($run)?->name]);
    }

    public function test_one_chunk_is_taken_at_a_time_also_where_the_database_takes_them_for_few(): void
    {
        $run = $this->runWithTasks(['0']);
        DB::table('run_tasks')->update(['done_at' => now()]);
        // What it knows of the table is a single row: it then asks for the free task once for each that is there.
        DB::connection('owner')->statement('VACUUM (ANALYZE) run_tasks, runs');
        DB::table('run_tasks')->insert(
            array_map(static fn(string $name): array => ['run_id' => $run->id, 'name' => $name], ['a', 'b', 'c']),
        );
        $this->take($run);

        self::assertSame(['a'], DB::table('run_tasks')->whereNotNull('worker')->orderBy('name')->pluck('name')->all());
    }

    public function test_a_chunk_whose_worker_fell_silent_is_free_again_and_one_that_gives_signs_is_not(): void
    {
        $run = $this->runWithTasks(['source-0']);
        $task = TaskLease::take(DB::connection(), $run->id, 15, secondsBetweenSigns: 0.0) ?? self::fail('The task is free.');
        DB::table('run_tasks')->update(['lease_expires_at' => now()->subSecond()]);
        $task->progress(4_096, 12);

        self::assertNull($this->take($run));
        self::assertSame([4_096, 12], [DB::table('run_tasks')->value('bytes_read'), DB::table('run_tasks')->value('records_read')]);
        $task->release();
        self::assertSame('source-0', $this->take($run)?->name);
    }

    public function test_nobody_begins_a_chunk_of_a_run_that_is_cancelled_or_over(): void
    {
        $run = $this->runWithTasks(['source-0']);
        Run::query()->whereKey($run->id)->update(['cancel_requested_at' => now()]);
        self::assertNull($this->take($run));

        Run::query()->whereKey($run->id)->update(['cancel_requested_at' => null, 'state' => RunState::Failed->value]);
        self::assertNull($this->take($run));
    }

    public function test_a_helper_does_what_is_free_and_the_leader_finds_it_done(): void
    {
        $run = $this->runWithTasks(['source-0', 'target-0']);
        app()->call([new WorkOnRun($run->id), 'handle']);

        self::assertSame(2, DB::table('run_tasks')->whereNotNull('done_at')->count());
        $work = app(RunWork::class)->of($run);
        self::assertTrue($work->isDone('source-0') && $work->isDone('target-0'));
        self::assertSame(
            [9, 5],
            [$work->scanResults(\NineTally\Core\Row\Side::Source)[0]->read, $work->scanResults(\NineTally\Core\Row\Side::Target)[0]->read],
        );
    }

    public function test_a_helper_that_cannot_go_on_frees_its_chunk_for_the_leader(): void
    {
        $run = $this->runWithTasks(['match-0']);
        // Nothing has been read yet, so there is nothing to match.
        app()->call([new WorkOnRun($run->id), 'handle']);

        self::assertSame('match-0', $this->take($run)?->name);
    }

    public function test_what_a_run_left_behind_is_cleared_up_when_it_is_over(): void
    {
        $run = $this->runWithTasks(['source-0']);
        $folder = app(RunWork::class)->tasks($run);
        file_put_contents("{$folder}/source-0", 'rows');
        Artisan::call('nine-tally:watch --once');
        self::assertFileExists("{$folder}/source-0", 'Its run goes on.');

        Run::query()->whereKey($run->id)->update(['state' => RunState::Failed->value]);
        Artisan::call('nine-tally:watch --once');
        self::assertDirectoryDoesNotExist(dirname($folder));
        self::assertSame(0, DB::table('run_tasks')->count());
    }

    private function take(Run $run): ?TaskLease
    {
        return TaskLease::take(DB::connection(), $run->id, 15);
    }

    /** @param list<string> $names */
    private function runWithTasks(array $names): Run
    {
        $this->actingAs($this->analyst);
        $this->deliver('source', self::OLD);
        $this->deliver('target', self::NEW);
        $this->match();
        config(['queue.default' => 'database']);
        $run = Run::query()->findOrFail($this->number($this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated(), 'id'));
        RunLease::take($run->id, 60);
        foreach ($names as $name) {
            DB::table('run_tasks')->insert(['run_id' => $run->id, 'name' => $name]);
        }

        return $run->refresh();
    }
}
