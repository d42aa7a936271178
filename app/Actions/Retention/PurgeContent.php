<?php

declare(strict_types=1);

namespace App\Actions\Retention;

use App\Actions\Access\ConfirmIdentity;
use App\Actions\Access\Trail;
use App\Jobs\RemovePurgedFiles;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\KeptFilter;
use App\Models\Migration;
use App\Models\PlanDraft;
use App\Models\Purge;
use App\Models\PurgedPlan;
use App\Models\PurgedTally;
use App\Models\RunState;
use App\Models\TrailAct;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Retention\DueContent;
use App\Queries\Retention\PurgeReach;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Collection;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\PlanValues;

/**
 * Purges the content of deliveries, and every copy of it that the database holds, in one transaction with the act; a worker removes the
 * files, and begins again where it was stopped. Hashes, counts, who and when stay.
 */
final readonly class PurgeContent
{
    public function __construct(
        private Connection $database,
        private ConfirmIdentity $confirm,
        private PurgeReach $reach,
        private DueContent $due,
        private Trail $trail,
    ) {}

    /**
     * @param  non-empty-list<int>  $deliveries  ids
     * @return list<Purge>
     *
     * @throws Conflict when one of them was purged, or a tally under way reads it
     * @throws \Illuminate\Validation\ValidationException when the password or the code is not right
     */
    public function __invoke(
        Migration $migration,
        array $deliveries,
        string $reason,
        User $person,
        #[\SensitiveParameter]
        string $password,
        #[\SensitiveParameter]
        string $code,
    ): array {
        ($this->confirm)($person, $password, $code);

        return $this->database->transaction(function () use ($migration, $deliveries, $reason, $person): array {
            // Nobody delivers, begins a tally or keeps a pack meanwhile.
            Dataset::query()->where('migration_id', $migration->id)->orderBy('id')->lockForUpdate()->get();
            $found = Delivery::query()
                ->whereKey($deliveries)
                ->whereIn('dataset_id', $migration->datasets()->select('id'))
                ->with(['dataset', 'purge.user'])
                ->orderBy('id')
                ->get();
            $this->mustBeFree($found, count(array_unique($deliveries)));
            $purges = array_values($found->map(fn(Delivery $one): Purge => $this->purge($migration, $one, $reason, $person))->all());
            foreach ($found->unique('dataset_id') as $delivery) {
                $this->emptyDataset($delivery->dataset);
            }
            // Nobody knows of an answer what it was found from; each is found again when it is asked for.
            Answer::query()->delete();
            foreach ($purges as $purge) {
                RemovePurgedFiles::dispatch($purge->id)->afterCommit();
            }

            return $purges;
        });
    }

    /** @param Collection<int, Delivery> $deliveries */
    private function mustBeFree(Collection $deliveries, int $asked): void
    {
        if ($deliveries->count() !== $asked) {
            throw Conflict::because('not-found', 'One of these deliveries is not of this migration. Nothing was purged.');
        }
        foreach ($deliveries as $delivery) {
            $name = "{$delivery->dataset->name}, {$delivery->side->value} delivery {$delivery->number}";
            if ($delivery->purge !== null) {
                throw Conflict::because(
                    'purged-already',
                    "{$name}: {$delivery->purge->user->name} purged it on {$delivery->purge->created_at->format('j M Y')}. ".
                        'Nothing was purged now.',
                );
            }
            $isRead = $this->database
                ->table('run_deliveries')
                ->join('runs', 'runs.id', '=', 'run_deliveries.run_id')
                ->where('delivery_id', $delivery->id)
                ->whereIn('state', RunState::goingOn())
                ->exists();
            if ($isRead) {
                throw Conflict::because(
                    'run-going-on',
                    "{$name}: a tally under way reads it. Wait for its end, or cancel it on Tally. Nothing was purged.",
                );
            }
        }
    }

    private function purge(Migration $migration, Delivery $delivery, string $reason, User $person): Purge
    {
        $tallies = array_column($this->reach->tallies([$delivery->id]), 'id');
        $plans = array_filter($this->reach->plans([$delivery->id]), static fn(array $plan): bool => $plan['goes']);
        $purge = Purge::query()->create([
            'migration_id' => $migration->id,
            'delivery_id' => $delivery->id,
            'reason' => $reason,
            'was_due' => $this->due->isDue($migration, $delivery),
            'removed' => $this->reach->counts([$delivery->id], $tallies, array_sum(array_column($plans, 'values'))),
            'user_id' => $person->id,
        ]);
        foreach ($tallies as $tally) {
            PurgedTally::query()->create(['tally_id' => $tally, 'purge_id' => $purge->id]);
        }
        $this->database->select('SELECT purge_delivery(?)', [$purge->id]);
        $this->database->select('SELECT purge_warnings(?)', [$purge->id]);
        foreach ($plans as $plan) {
            PurgedPlan::query()->create([
                'plan_version_id' => $plan['id'], 'purge_id' => $purge->id, 'values_removed' => $plan['values'],
            ]);
            $this->database->select('SELECT purge_plan(?, ?, ?)', [$purge->id, $plan['id'], CanonicalJson::of($plan['document'])]);
        }
        // They are made again in a moment, and nobody knows what a value in one was taken from.
        KeptFilter::query()->where('dataset_id', $delivery->dataset_id)->delete();
        $this->trail->note(
            TrailAct::Purged,
            $person,
            "{$delivery->dataset->name}, {$delivery->side->value} delivery {$delivery->number}: {$reason}",
            $migration,
        );

        return $purge->setRelation('user', $person);
    }

    /** Where no delivery of a dataset is left, the draft of its plan keeps no values either. */
    private function emptyDataset(Dataset $dataset): void
    {
        $draft = $dataset->draft()->first();
        if ($draft instanceof PlanDraft && ! $dataset->deliveries()->doesntHave('purge')->exists()) {
            $draft->update(['document' => PlanValues::takenOutOf($draft->document)->document, 'number' => $draft->number + 1]);
        }
    }
}
