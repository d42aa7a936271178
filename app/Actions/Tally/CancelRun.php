<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Run;
use App\Models\RunState;

/** Ends a run that nobody wants any more, at once: whoever is at work on it learns so within a second or two, and can enter nothing. */
final readonly class CancelRun
{
    public function __construct(private EndRun $end) {}

    public function __invoke(Run $run): Run
    {
        Run::query()->whereKey($run->id)->whereIn('state', RunState::goingOn())->update(['cancel_requested_at' => now()]);
        ($this->end)($run, RunState::Cancelled);

        return $run->refresh();
    }
}
