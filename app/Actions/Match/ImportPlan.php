<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use App\Models\WantedSources;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\Plan;

/**
 * Makes a plan of another dataset, or an earlier version, the draft. What does not fit these deliveries is shown as problems of the draft;
 * nothing of it is dropped.
 */
final readonly class ImportPlan
{
    public function __construct(private Connection $database, private SaveDraft $saveDraft) {}

    /** @throws \NineTally\Core\Plan\UnusablePlan when it is no plan, with the places */
    public function __invoke(Dataset $dataset, string $json, User $person): PlanDraft
    {
        $plan = Plan::fromJson($json);
        // Most plans say nothing of it, and may be megabytes.
        $document = str_contains($json, '"drawn"') ? json_decode($json, true) : [];
        $drawn = is_array($document) && is_array($document['drawn'] ?? null) ? array_filter($document['drawn']) : [];

        return $this->database->transaction(function () use ($dataset, $plan, $drawn, $person): PlanDraft {
            // Where its rows come from is asked for, and is no part of what is compared.
            $drawn === []
                ? WantedSources::query()->whereKey($dataset->id)->delete()
                : WantedSources::query()->updateOrCreate(['dataset_id' => $dataset->id], ['drawn' => $drawn, 'user_id' => $person->id]);

            return ($this->saveDraft)($dataset, $plan->toArray(), $person);
        });
    }
}
