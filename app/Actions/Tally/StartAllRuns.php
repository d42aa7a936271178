<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Migration;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Board\LookedUp;
use App\Queries\Tally\MadeOfTheSame;
use NineTally\Core\NineTallyException;

/**
 * Starts a run for every dataset of a migration in which something has changed since its last tally; those that cannot be tallied say
 * why. What others only look up from is no dataset to be tallied.
 * Under a name every dataset is tallied that can be, so that the rehearsal is whole.
 */
final readonly class StartAllRuns
{
    public function __construct(private StartRun $startRun, private MadeOfTheSame $madeOfTheSame) {}

    /**
     * @return array{started: list<array{dataset: string, run: int}>, unchanged: list<array{dataset: string, tally: int}>,
     *     notStarted: list<array{dataset: string, why: string}>}
     */
    public function __invoke(Migration $migration, User $person, ?string $name = null): array
    {
        $started = $unchanged = $notStarted = [];
        $datasets = $migration->datasets()->with('draft')->orderBy('name')->get();
        $lookedUp = LookedUp::among($datasets);
        foreach ($datasets as $dataset) {
            if ($lookedUp->has($dataset) && ($dataset->draft?->keyNames() ?? []) === []) {
                continue;
            }
            try {
                $same = $name === null ? $this->madeOfTheSame->latestTallyOf($dataset) : null;
                if ($same !== null) {
                    $unchanged[] = ['dataset' => $dataset->name, 'tally' => $same->number];
                } else {
                    $started[] = ['dataset' => $dataset->name, 'run' => ($this->startRun)($dataset, $person, name: $name)->id];
                }
            } catch (Conflict|NineTallyException $problem) {
                $notStarted[] = ['dataset' => $dataset->name, 'why' => $problem->getMessage()];
            }
        }

        return ['started' => $started, 'unchanged' => $unchanged, 'notStarted' => $notStarted];
    }
}
