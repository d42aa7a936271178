<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingTables;
use App\Adapters\Runs\RunWork;
use App\Models\Run;
use App\Models\RunState;

/** Ends a run without a tally. Whoever is at work on it learns so with the next sign of life. */
final readonly class EndRun
{
    public function __construct(private RunWork $work, private FindingTables $tables) {}

    public function __invoke(Run $run, RunState $state, ?string $problem = null): void
    {
        $ended = Run::query()
            ->whereKey($run->id)
            ->whereIn('state', RunState::goingOn())
            ->update(['state' => $state->value, 'problem' => $problem, 'finished_at' => now()]);
        if ($ended === 1) {
            $this->clearUp($run->refresh());
        }
    }

    /** After the run, however it ended. What is forgotten here is found by {@see KeepGoing}. */
    public function clearUp(Run $run): void
    {
        $this->work->remove($run);
        if ($run->entering_tally_id !== null && $run->tally_id === null) {
            $this->tables->drop($run->entering_tally_id);
        }
    }
}
