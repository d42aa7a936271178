<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Run;
use App\Models\User;
use App\Problems\Conflict;
use NineTally\Core\NineTallyException;

/** Starts a run for every dataset of a migration that can be tallied; those that cannot say why. */
final readonly class StartAllRuns
{
    public function __construct(private StartRun $startRun) {}

    /** @return array{started: list<array{dataset: string, run: int}>, notStarted: list<array{dataset: string, why: string}>} */
    public function __invoke(Migration $migration, User $person): array
    {
        $started = $notStarted = [];
        foreach ($migration->datasets()->orderBy('name')->get() as $dataset) {
            $run = $this->start($dataset, $person);
            if ($run instanceof Run) {
                $started[] = ['dataset' => $dataset->name, 'run' => $run->id];
            } else {
                $notStarted[] = ['dataset' => $dataset->name, 'why' => $run];
            }
        }

        return ['started' => $started, 'notStarted' => $notStarted];
    }

    private function start(Dataset $dataset, User $person): Run|string
    {
        try {
            return ($this->startRun)($dataset, $person);
        } catch (Conflict|NineTallyException $problem) {
            return $problem->getMessage();
        }
    }
}
