<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use NineTally\Core\Plan\Plan;

/**
 * Makes a plan of another dataset, or an earlier version, the draft. What does not fit these deliveries is shown as problems of the draft;
 * nothing of it is dropped.
 */
final readonly class ImportPlan
{
    public function __construct(private SaveDraft $saveDraft) {}

    /** @throws \NineTally\Core\Plan\UnusablePlan when it is no plan, with the places */
    public function __invoke(Dataset $dataset, string $json, User $person): PlanDraft
    {
        return ($this->saveDraft)($dataset, Plan::fromJson($json)->toArray(), $person);
    }
}
