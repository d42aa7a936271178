<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Actions\Deliver\DeliveryTerms;
use App\Adapters\Deliveries\PreparedSides;
use App\Adapters\Runs\RunWork;
use App\Adapters\Storage\WorkbookFiles;
use App\Jobs\ReceiveParts;
use App\Jobs\RunTally;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\Run;
use App\Models\RunState;
use Illuminate\Database\Connection;

/** Queues again what a dead worker held: runs whose lease ran out, and deliveries that gave no sign of life. */
final readonly class RequeueExpiredWork
{
    /** A delivery reports every 50,000 records; a worker that reads none of them in this many seconds is dead. */
    private const SILENT_SECONDS = 30;

    public function __construct(
        private Connection $database,
        private RunWork $work,
        private PreparedSides $sides,
        private WorkbookFiles $workbooks,
        private int $attempts,
        private int $keepPreparedSeconds,
    ) {}

    public function __invoke(): void
    {
        foreach (
            Run::query()->whereIn('state', RunState::goingOn())->whereNotNull('lease')->where('lease_expires_at', '<', now())->get()
            as $run
        ) {
            $this->revive($run);
        }
        $this->requeueForgotten();
        $silent = Receipt::query()
            ->where('state', ReceiptState::Reading->value)
            ->where('updated_at', '<', now()->subSeconds(self::SILENT_SECONDS))
            ->get();
        foreach ($silent as $receipt) {
            // The mark of life is set first, so that the next look leaves it alone.
            $receipt->touch();
            // The parts of a delivery are read by one worker, from the first on.
            if ($receipt->taking !== null && $receipt->taking['receipts'][0] === $receipt->id) {
                ReceiveParts::dispatch($receipt->taking['receipts'], DeliveryTerms::fromArray($receipt->taking['terms']));
            }
        }
        $this->work->clearUp($this->database);
        $this->sides->clearUp($this->keepPreparedSeconds);
        $this->workbooks->clearUp();
        $this->dropTablesOfTheDead();
    }

    /** A worker may die between taking a job and taking the lease: the run then waits with no job left to begin it. */
    private function requeueForgotten(): void
    {
        if ($this->database->table('jobs')->whereNull('reserved_at')->exists()) {
            return;
        }
        foreach (
            Run::query()
                ->where('state', RunState::Queued->value)
                ->whereNull('lease')
                ->where('created_at', '<', now()->subSeconds(self::SILENT_SECONDS))
                ->get()
            as $run
        ) {
            RunTally::dispatch($run->id);
        }
    }

    private function revive(Run $run): void
    {
        if ($run->cancel_requested_at !== null) {
            $this->end($run, RunState::Cancelled, null);
        } elseif ($run->attempts >= $this->attempts) {
            $this->end(
                $run,
                RunState::Failed,
                "The tally was started {$run->attempts} times and its worker died each time, most likely for want of memory. Nothing of ".
                    "it was kept.",
            );
        } else {
            // Without a lease the run is anyone's again; a worker that was only slow finds its own gone.
            $freed = Run::query()
                ->whereKey($run->id)
                ->where('lease', $run->lease)
                ->update(['state' => RunState::Queued->value, 'lease' => null, 'lease_expires_at' => null]);
            if ($freed === 1) {
                RunTally::dispatch($run->id);
            }
        }
    }

    private function end(Run $run, RunState $state, ?string $problem): void
    {
        Run::query()
            ->whereKey($run->id)
            ->where('lease', $run->lease)
            ->update(['state' => $state->value, 'problem' => $problem, 'finished_at' => now()]);
    }

    /** Tables of findings that belong to no tally, when nobody is at work who might still enter one. */
    private function dropTablesOfTheDead(): void
    {
        if (Run::query()->whereIn('state', RunState::goingOn())->exists()) {
            return;
        }
        /** @var list<object{id: int}> $orphans */
        $orphans = $this->database->select(<<<'SQL'
            SELECT substring(relname FROM '\d+$')::bigint AS id FROM pg_class
            WHERE relkind = 'r' AND relname ~ '^row_findings_\d+$' AND NOT EXISTS (SELECT 1 FROM tallies
                WHERE tallies.id = substring(relname FROM '\d+$')::bigint)
            SQL);
        foreach ($orphans as $orphan) {
            $this->database->statement('SELECT drop_findings(?)', [$orphan->id]);
        }
    }
}
