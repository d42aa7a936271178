<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Run;
use App\Models\RunState;

/** Asks a run to end. One that waits ends at once; one that works looks at the wish once per block. */
final readonly class CancelRun
{
    public function __invoke(Run $run): Run
    {
        Run::query()
            ->whereKey($run->id)
            ->where('state', RunState::Queued->value)
            ->update(['state' => RunState::Cancelled->value, 'cancel_requested_at' => now(), 'finished_at' => now()]);
        Run::query()
            ->whereKey($run->id)
            ->whereIn('state', RunState::goingOn())
            ->update(['cancel_requested_at' => now()]);

        return $run->refresh();
    }
}
