<?php

declare(strict_types=1);

namespace Tests\Feature\Tally;

use App\Models\Run;
use App\Models\Tally;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Redis;

/** Runs that wait for a worker, and all that came of one. */
trait QueuedRuns
{
    private function prepared(): void
    {
        $this->actingAs($this->analyst);
        if ($this->dataset->deliveries()->count() === 0) {
            $this->deliver('source', self::OLD);
            $this->deliver('target', self::NEW);
            $this->match();
        }
        // From here on jobs wait in the queue, as with a worker that has not come yet.
        config(['queue.default' => $this->queueDriver()]);
    }

    /** The same tests run with each driver: bin/test names the other one. */
    private function queueDriver(): string
    {
        return getenv('NINE_TALLY_TEST_QUEUE') ?: 'database';
    }

    private function waitingJobs(): int
    {
        return Queue::size('run');
    }

    /** As when the queue is one in memory, and its server was started again. */
    private function loseTheQueue(): void
    {
        $this->queueDriver() === 'redis' ? Redis::connection()->command('flushdb') : DB::table('jobs')->delete();
    }

    /** A worker does the next job, or all of them; what was put off is due, and what dead workers hold is free. */
    private function work(bool $all = false): void
    {
        if ($this->queueDriver() === 'redis') {
            foreach (['delayed', 'reserved'] as $kind) {
                foreach (Redis::connection()->zrange("queues:run:{$kind}", 0, -1) as $job) {
                    Redis::connection()->zadd("queues:run:{$kind}", time() - 60, $job);
                }
            }
        } else {
            DB::table('jobs')->update(['available_at' => 0]);
            DB::table('jobs')->whereNotNull('reserved_at')->update(['reserved_at' => time() - 60]);
        }
        Artisan::call('queue:work --queue=run --sleep=0 --memory=2048 '.($all ? '--stop-when-empty' : '--once'));
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
}
