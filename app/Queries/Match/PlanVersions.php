<?php

declare(strict_types=1);

namespace App\Queries\Match;

use App\Models\Dataset;
use App\Models\PlanVersion;
use App\Models\Tally;
use App\Models\User;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanChanges;

/** The versions of a dataset's plan, the newest first, each with who made it, when, what changed, and which tallies used it. */
final readonly class PlanVersions
{
    public function __construct(private PlanChanges $changes) {}

    /** @return list<array<string, mixed>> */
    public function __invoke(Dataset $dataset): array
    {
        $versions = $dataset->planVersions()->orderBy('number')->get();
        $people = User::query()
            ->whereKey($versions->pluck('user_id')->unique()->all())
            ->pluck('name', 'id');
        $tallies = Tally::query()
            ->where('dataset_id', $dataset->id)
            ->orderBy('number')
            ->get(['number', 'plan_version_id'])
            ->groupBy('plan_version_id');
        $shown = [];
        $before = null;
        foreach ($versions as $version) {
            $plan = $version->plan();
            $shown[] = [
                'number' => $version->number,
                'by' => $people->get($version->user_id) ?? '',
                'at' => $version->created_at->toIso8601ZuluString(),
                'changes' => $before instanceof Plan ? $this->changes->between($before, $plan) : ['the first version'],
                'tallies' => $tallies->get($version->id)?->pluck('number')->values()->all() ?? [],
            ];
            $before = $plan;
        }

        return array_reverse($shown);
    }

    /** @return list<string> what changed from one version to the other */
    public function compare(PlanVersion $one, PlanVersion $other): array
    {
        return $this->changes->between($one->plan(), $other->plan());
    }
}
