<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Tally\PerformRun;
use App\Adapters\Runs\RunLease;
use App\Logging\ReducedException;
use App\Models\RunState;
use Illuminate\Contracts\Config\Repository;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Performs a run. Whoever holds the lease works; a job that comes late finds it held, or the run over, and does nothing. */
final class RunTally implements ShouldQueue
{
    use Queueable;

    public int $tries = 1;

    public function __construct(private readonly int $runId) {}

    public function handle(PerformRun $performRun, Repository $settings): void
    {
        $lease = RunLease::take($this->runId, $settings->integer('nine-tally.lease_seconds'));
        if ($lease === null) {
            return;
        }
        try {
            $performRun($lease);
        } catch (\Throwable $failure) {
            logger()->error('run failed', ['run' => $this->runId, ...ReducedException::of($failure)]);
            $lease->end(
                RunState::Failed,
                'The tally met a problem that it did not expect, and nothing of it was kept. Try again; if it fails again, look at the '.
                    'free disk space and tell whoever runs Nine Tally.',
            );
        }
    }
}
