<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Actions\Access\Trail;
use App\Models\Run;
use App\Models\RunState;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Connection;

/** Ends a run that nobody wants any more, at once: whoever is at work on it learns so within a second or two, and can enter nothing. */
final readonly class CancelRun
{
    public function __construct(private EndRun $end, private Connection $database, private Trail $trail) {}

    public function __invoke(Run $run, User $person): Run
    {
        $this->database->transaction(function () use ($run, $person): void {
            $asked = Run::query()->whereKey($run->id)->whereIn('state', RunState::goingOn())->update(['cancel_requested_at' => now()]);
            if ($asked > 0) {
                $this->trail->note(TrailAct::CancelledRun, $person, "{$run->dataset->name}: run {$run->id}", $run->dataset->migration);
            }
        });
        ($this->end)($run, RunState::Cancelled);

        return $run->refresh();
    }
}
