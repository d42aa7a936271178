<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Actions\Work\KeepGoing;
use App\Adapters\Storage\BlobStore;
use App\Jobs\WorkOnRun;
use App\Models\Run;
use App\Models\RunState;
use App\Models\Tally;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\Attributes\TestWith;
use Symfony\Component\Process\Exception\ProcessSignaledException;
use Symfony\Component\Process\Process;
use Tests\TestCase;

/** Workers that die, are late, or are told to stop: a tally is entered whole or not at all. */
final class WorkersTest extends TestCase
{
    use QueuedRuns;

    public function test_a_run_can_be_cancelled_while_it_waits_and_while_it_works(): void
    {
        $run = $this->queued();
        $this->api('POST', "/runs/{$run->id}/cancellation")->assertOk()->assertJson(['state' => 'cancelled', 'isOver' => true]);
        app()->call([new WorkOnRun($run->id), 'handle']);
        self::assertSame([RunState::Cancelled, 0], [$run->refresh()->state, $run->attempts]);

        $run = $this->queued();
        $this->cancelBefore($run, 'run_tasks SET done_at');
        app()->call([new WorkOnRun($run->id), 'handle']);

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'cancelled', 'tallyId' => null]);
        self::assertSame([0, [], []], [Tally::query()->count(), $this->tablesOfRuns(), glob(storage_path('work/run-*'))]);
    }

    public function test_a_run_that_is_ended_between_loading_and_entering_enters_nothing(): void
    {
        $run = $this->queued();
        $this->cancelBefore($run, 'seal_findings');
        app()->call([new WorkOnRun($run->id), 'handle']);

        self::assertSame([0, []], [Tally::query()->count(), $this->tablesOfRuns()]);
        self::assertSame(RunState::Cancelled, $run->refresh()->state);
    }

    public function test_bytes_that_the_disk_damaged_are_found_and_never_tallied(): void
    {
        $run = $this->queued();
        $blob = app(BlobStore::class)->path($run->sourceDelivery->parts()->firstOrFail()->digest);
        $bytes = (string) file_get_contents($blob);
        chmod($blob, 0600);
        file_put_contents($blob, substr_replace($bytes, '9', 30, 1));
        app()->call([new WorkOnRun($run->id), 'handle']);
        self::assertSame(1, Artisan::call('nine-tally:check'));
        file_put_contents($blob, $bytes);

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'failed', 'tallyId' => null]);
        self::assertStringContainsString('are not those that were delivered', (string) $run->refresh()->problem);
        self::assertSame(0, Artisan::call('nine-tally:check'));
    }

    public function test_a_run_whose_worker_dies_again_and_again_fails_with_a_reason(): void
    {
        $run = $this->queued();
        // It was taken three times, and each time its worker gave no sign any more.
        DB::table('jobs')->update(['attempts' => 3, 'reserved_at' => time() - 60]);
        $this->work();

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'failed']);
        self::assertStringContainsString('its worker ended each time', (string) $run->refresh()->problem);
    }

    /** Moments drawn with a fixed seed, from the first statement of a run to its last: while reading, matching, merging, loading. */
    #[TestWith([4])]
    public function test_a_worker_killed_at_any_moment_leaves_nothing_visible_and_the_next_gives_the_same_result(int $moments): void
    {
        config(['nine-tally.memory' => 16 * 1024 * 1024]);
        $rows = static fn(string $case): string => implode(
            '',
            array_map(
                static fn(int $row): string => sprintf(
                    "KB,%05d,%s %d,%s,1\n",
                    $row,
                    $row % 50 === 0 ? $case : 'Holder of the berth',
                    $row,
                    str_repeat('x', 60),
                ),
                range(1, 15_000),
            ),
        );
        $undisturbed = $this->contentOf(
            $this->tallied("basin,berth,holder,fee,loaded\n".$rows('HOLDER'), "basin,berth,owner,fee,loaded\n".$rows('holder')),
        );
        $statements = (int) $this->worker($this->queued(), 0);
        self::assertGreaterThan(30, $statements);
        mt_srand(20_261_125);
        for ($moment = 1; $moment <= $moments; $moment++) {
            $run = $this->queued();
            $tallies = Tally::query()->count();
            $at = (int) (($moment - mt_rand(1, 99) / 100) / $moments * ($statements - 2)) + 2;
            self::assertNull($this->worker($run, $at), "killed at statement {$at}");
            // Killed before the tally was entered nothing is seen of it, after that all of it.
            $wasEntered = $run->refresh()->state === RunState::Done;
            self::assertSame($tallies + ($wasEntered ? 1 : 0), Tally::query()->count());

            // What comes of the job, which its queue gives to the next worker as soon as the dead one has been silent for long enough.
            DB::table('run_tasks')->update(['seen_at' => now()->subMinute(), 'queued_at' => now()->subMinute()]);
            $this->work(all: true);

            self::assertSame(RunState::Done, $run->refresh()->state, "after statement {$at}: {$run->problem}");
            self::assertSame($undisturbed, $this->contentOf(Tally::query()->findOrFail($run->tally_id)), "after statement {$at}");
        }
        app(KeepGoing::class)();
        self::assertCount(2 * Tally::query()->count(), $this->tablesOfRuns(), 'Two tables for each tally: those of the dead are gone.');
        self::assertSame([], glob(storage_path('work/run-*')), 'Nothing is left of runs that are over.');
    }

    #[Group('long')]
    public function test_a_worker_killed_at_many_moments_leaves_nothing_either(): void
    {
        $this->test_a_worker_killed_at_any_moment_leaves_nothing_visible_and_the_next_gives_the_same_result(20);
    }

    /** @return string|null what the worker said; null when it was killed */
    private function worker(Run $run, int $moment): ?string
    {
        $worker = new Process(
            [PHP_BINARY, dirname(__DIR__, 2).'/Support/dying-worker.php', (string) $run->id, (string) $moment],
            env: ['NINE_TALLY_HOME' => dirname(app()->environmentPath())],
        );
        try {
            $worker->mustRun();

            return $worker->getOutput();
        } catch (ProcessSignaledException $killed) {
            self::assertSame(SIGKILL, $killed->getSignal());

            return null;
        }
    }

    /** Somebody cancels the run in the moment before a statement of its worker. */
    private function cancelBefore(Run $run, string $statement): void
    {
        DB::connection()->beforeExecuting(static function (string $query) use ($run, $statement): void {
            if (str_contains($query, $statement)) {
                DB::connection('owner')->table('runs')->where('id', $run->id)->update(['state' => 'cancelled']);
            }
        });
    }

    /** @return list<string> */
    private function tablesOfRuns(): array
    {
        /** @var list<object{relname: string}> $tables */
        $tables = DB::select("SELECT relname FROM pg_class WHERE relkind = 'r' AND relname ~ '_findings_[0-9]+$'");

        return array_map(static fn(object $table): string => $table->relname, $tables);
    }
}
