<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Actions\Tally\RequeueExpiredWork;
use App\Adapters\Runs\LeaseLost;
use App\Adapters\Runs\RunLease;
use App\Models\Run;
use App\Models\RunState;
use App\Models\Tally;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Database\Events\TransactionBeginning;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
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

        $run = $this->queued();
        $lease = RunLease::take($run->id, 15) ?? self::fail('The run is free.');
        $this->api('POST', "/runs/{$run->id}/cancellation")->assertOk()->assertJson(['isBeingCancelled' => true]);
        app(\App\Actions\Tally\PerformRun::class)($lease);

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'cancelled', 'tallyId' => null]);
        self::assertSame([0, []], [Tally::query()->count(), $this->tablesOfRuns()]);
    }

    public function test_one_worker_holds_a_run_and_a_late_one_is_fenced_off(): void
    {
        $run = $this->queued();
        $first = RunLease::take($run->id, 15) ?? self::fail('The run is free.');
        self::assertNull(RunLease::take($run->id, 15));

        Run::query()->whereKey($run->id)->update(['lease_expires_at' => now()->subSecond()]);
        self::assertNotNull(RunLease::take($run->id, 15));
        $this->expectException(LeaseLost::class);
        $first->sign(RunState::Matching, 0.5);
    }

    public function test_a_worker_that_loses_its_run_between_loading_and_entering_enters_nothing(): void
    {
        $run = $this->queued();
        $lease = RunLease::take($run->id, 15) ?? self::fail('The run is free.');
        $isLoaded = false;
        DB::listen(static function (QueryExecuted $query) use (&$isLoaded): void {
            $isLoaded = $isLoaded || str_contains($query->sql, 'index_findings');
        });
        Event::listen(static function (TransactionBeginning $beginning) use ($run, &$isLoaded): void {
            // Another worker took it over: everything is loaded, and all that is left is to enter the tally.
            if ($isLoaded) {
                $beginning->connection->update('UPDATE runs SET lease = ? WHERE id = ?', [
                    '01a21258-1c44-731d-af75-d812359fe7c2',
                    $run->id,
                ]);
                $isLoaded = false;
            }
        });
        app(\App\Actions\Tally\PerformRun::class)($lease);

        self::assertSame([0, []], [Tally::query()->count(), $this->tablesOfRuns()]);
        self::assertNotSame(RunState::Done, $run->refresh()->state);
    }

    public function test_a_run_whose_worker_dies_again_and_again_fails_with_a_reason(): void
    {
        $run = $this->queued();
        RunLease::take($run->id, 15);
        Run::query()->whereKey($run->id)->update(['attempts' => 5, 'lease_expires_at' => now()->subSecond()]);
        app(RequeueExpiredWork::class)();

        $this->api('GET', "/runs/{$run->id}")->assertJson(['state' => 'failed']);
        self::assertStringContainsString('its worker died each time', (string) $run->refresh()->problem);
    }

    /** Moments drawn with a fixed seed, from the first statement of a run to its last: while reading, matching, merging, loading. */
    #[TestWith([3])]
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

            // What Watch does as soon as the lease has run out.
            Run::query()->whereKey($run->id)->update(['lease_expires_at' => now()->subSecond()]);
            DB::table('run_tasks')->update(['lease_expires_at' => now()->subSecond()]);
            config(['queue.default' => 'sync']);
            app(RequeueExpiredWork::class)();

            self::assertSame(
                [RunState::Done, $wasEntered ? 1 : 2],
                [$run->refresh()->state, $run->attempts],
                "after statement {$at}: {$run->problem}",
            );
            self::assertSame($undisturbed, $this->contentOf(Tally::query()->findOrFail($run->tally_id)), "after statement {$at}");
        }
        app(RequeueExpiredWork::class)();
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

    private function queued(): Run
    {
        $this->prepared();

        return Run::query()->findOrFail($this->number($this->api('POST', "/datasets/{$this->dataset->id}/runs")->assertCreated(), 'id'));
    }

    /** @return list<mixed> everything a tally says, but its own number */
    private function contentOf(Tally $tally): array
    {
        return [
            $tally->summary,
            DB::table('row_findings')
                ->where('tally_id', $tally->id)
                ->orderBy('sequence')
                ->selectRaw(
                    "sequence, class, class_ordinal, side, key, encode(identity, 'hex') AS identity, source_cells::text, ".
                        "target_cells::text, refusal, differing_cells",
                )
                ->get()
                ->toJson(),
            DB::table('cell_findings')
                ->where('tally_id', $tally->id)
                ->orderBy('sequence')
                ->selectRaw(
                    "sequence, row_sequence, pattern_number, pattern_ordinal, class, cause, source_value, target_value, encode(identity, ".
                        "'hex') AS identity",
                )
                ->get()
                ->toJson(),
            DB::table('patterns')
                ->where('tally_id', $tally->id)
                ->orderBy('number')
                ->get(['number', 'class', 'cause', 'cells', 'examples'])
                ->toJson(),
        ];
    }

    /** @return list<string> */
    private function tablesOfRuns(): array
    {
        /** @var list<object{relname: string}> $tables */
        $tables = DB::select("SELECT relname FROM pg_class WHERE relkind = 'r' AND relname ~ '_findings_[0-9]+$'");

        return array_map(static fn(object $table): string => $table->relname, $tables);
    }
}
