<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Deliveries\PreparationInputs;
use App\Models\Run;
use App\Models\RunState;
use App\Models\User;
use App\Problems\Conflict;

/** Runs again what failed or was cancelled, on the same deliveries, references, parameters and plan, whatever came since. */
final readonly class RetryRun
{
    public function __construct(private QueueRun $queueRun) {}

    /** @throws Conflict when the run did not fail, or was not cancelled */
    public function __invoke(Run $run, User $person): Run
    {
        if (! in_array($run->state, [RunState::Failed, RunState::Cancelled], true)) {
            throw Conflict::because(
                'not-to-be-retried',
                'Only a run that failed or was cancelled is run again as it was. Start a new one.',
            );
        }

        return ($this->queueRun)(
            $run->dataset,
            $person,
            static fn(): RunTerms => new RunTerms(
                $run->planVersion,
                $run->source_delivery_id,
                $run->target_delivery_id,
                PreparationInputs::ofRun($run),
                $run->name,
            ),
        );
    }
}
