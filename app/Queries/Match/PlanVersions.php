<?php

declare(strict_types=1);

namespace App\Queries\Match;

use App\Models\Dataset;
use App\Models\PlanVersion;
use App\Models\Tally;
use App\Models\User;
use App\Queries\Review\Masks;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\PlanChanges;

/** The versions of a dataset's plan, the newest first, each with who made it, when, what changed, and which tallies used it. */
final readonly class PlanVersions
{
    public function __construct(private PlanChanges $changes, private Masks $masks) {}

    /** @return list<array<string, mixed>> */
    public function __invoke(Dataset $dataset, User $person): array
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
            $plan = $this->shown($dataset, $version, $person);
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
    public function compare(Dataset $dataset, PlanVersion $one, PlanVersion $other, User $person): array
    {
        return $this->changes->between($this->shown($dataset, $one, $person), $this->shown($dataset, $other, $person));
    }

    private function shown(Dataset $dataset, PlanVersion $version, User $person): Plan
    {
        $document = $version->plan()->toArray();
        $masked = $this->masks->plan($dataset, $document, $person);

        return $masked === $document ? $version->plan() : Plan::fromJson(CanonicalJson::of($masked));
    }
}
