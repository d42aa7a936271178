<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Jobs\StartRunInOrder;
use App\Models\Migration;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Board\LookedUp;
use App\Queries\Tally\MadeOfTheSame;
use App\Queries\Tally\MatchedOrder;
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
     *     notStarted: list<array{dataset: string, why: string}>, waiting: list<string>} waiting: for others that they take numbers from
     */
    public function __invoke(Migration $migration, User $person, ?string $name = null): array
    {
        $started = $unchanged = $notStarted = $waiting = $runs = [];
        $order = MatchedOrder::of($migration);
        $datasets = $order->datasets();
        $lookedUp = LookedUp::among(collect($datasets));
        foreach ($datasets as $dataset) {
            if ($lookedUp->has($dataset) && ($dataset->draft?->keyNames() ?? []) === []) {
                continue;
            }
            if (array_intersect_key($runs, array_flip($order->needs($dataset))) !== []) {
                // What it takes numbers from is being tallied anew: so is it, afterwards.
                $runs[$dataset->id] = null;
                $waiting[$dataset->id] = $dataset->name;

                continue;
            }
            try {
                $same = $name === null ? $this->madeOfTheSame->latestTallyOf($dataset) : null;
                if ($same !== null) {
                    $unchanged[] = ['dataset' => $dataset->name, 'tally' => $same->number];
                } else {
                    $runs[$dataset->id] = ($this->startRun)($dataset, $person, name: $name)->id;
                    $started[] = ['dataset' => $dataset->name, 'run' => $runs[$dataset->id]];
                }
            } catch (Conflict|NineTallyException $problem) {
                $notStarted[] = ['dataset' => $dataset->name, 'why' => $problem->getMessage()];
            }
        }

        if ($waiting !== []) {
            StartRunInOrder::dispatch(array_keys($waiting), $person->id, array_values(array_filter($runs)), $name);
        }

        return ['started' => $started, 'unchanged' => $unchanged, 'notStarted' => $notStarted, 'waiting' => array_values($waiting)];
    }
}
