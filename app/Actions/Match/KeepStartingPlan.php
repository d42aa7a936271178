<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\StartingPlan;
use App\Models\User;
use App\Problems\Conflict;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;

/** Keeps the draft of a dataset under a name, for others to begin with. */
final readonly class KeepStartingPlan
{
    /** @throws Conflict when the name is taken, or the draft has no key yet */
    public function __invoke(Dataset $dataset, string $name, User $person): StartingPlan
    {
        $draft = $dataset->draft()->first();
        if ($draft === null || $draft->document['key'] === []) {
            throw Conflict::because('no-plan', 'The plan has no key yet. Choose one before it is kept as a plan to start from.');
        }
        $startingPlan = StartingPlan::query()->createOrFirst(
            ['migration_id' => $dataset->migration_id, 'name' => $name],
            [
                // Bridges, and rows chosen by hand, are of the rows of this dataset, and of no other.
                'document' => Plan::fromJson(
                    CanonicalJson::of(array_diff_key($draft->document, ['bridges' => true, 'refusedBridges' => true, 'keptRows' => true])),
                )->canonicalJson(),
                'user_id' => $person->id,
            ],
        );

        return $startingPlan->wasRecentlyCreated
            ? $startingPlan
            : throw Conflict::because(
                'name-taken',
                "There is a plan to start from named \"{$name}\" already, and they are not overwritten. Choose another name.",
            );
    }
}
