<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Deliveries\PreparationInputs;
use App\Models\Dataset;
use App\Models\PlanVersion;
use App\Models\Run;
use App\Models\User;
use App\Problems\Conflict;
use App\Queries\Tally\MatchedOrder;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\DeliveredColumns;

/** Freezes the draft as a version of the plan, if it differs from the last one, and queues a run on the latest or on chosen deliveries. */
final readonly class StartRun
{
    public function __construct(private QueueRun $queueRun) {}

    /**
     * @param  string|null  $name  what the tally shall be called
     *
     * @throws Conflict when a side has no such delivery, or there is no key yet
     * @throws \NineTally\Core\Plan\UnusablePlan when the draft cannot be used on these deliveries
     */
    public function __invoke(Dataset $dataset, User $person, ChosenDeliveries $chosen = new ChosenDeliveries, ?string $name = null): Run
    {
        return ($this->queueRun)($dataset, $person, function (Dataset $dataset) use ($person, $chosen, $name): RunTerms {
            $source = $chosen->of($dataset, Side::Source);
            $target = $chosen->of($dataset, Side::Target);
            $plan = $this->plan($dataset);
            $circle = MatchedOrder::circleOf($dataset);
            if ($circle !== null) {
                throw Conflict::because('circle', $circle);
            }
            $plan->mustFit(
                $plan->preparedColumns(Side::Source, $source->namedColumns()),
                $plan->preparedColumns(Side::Target, $target->namedColumns()),
            );
            DeliveredColumns::mustHold($plan, new Sides($source->namedColumns(), $target->namedColumns()));

            return new RunTerms(
                $this->version($dataset, $plan, $person),
                $source->id,
                $target->id,
                PreparationInputs::ofTally($dataset, $plan, ['source' => $source->id, 'target' => $target->id]),
                $name,
            );
        });
    }

    private function plan(Dataset $dataset): Plan
    {
        $draft = $dataset->draft()->first();
        if ($draft === null || $draft->document['key'] === []) {
            throw Conflict::because('no-plan', 'There is no key yet. Open Match and choose the columns that tell one row from another.');
        }

        return Plan::fromJson(CanonicalJson::of($draft->document));
    }

    private function version(Dataset $dataset, Plan $plan, User $person): PlanVersion
    {
        $latest = $dataset->planVersions()->orderByDesc('number')->first();

        return $latest !== null && $latest->digest === $plan->digest() ? $latest : PlanVersion::query()->create([
            'dataset_id' => $dataset->id,
            'number' => ($latest->number ?? 0) + 1,
            'document' => $plan->canonicalJson(),
            'digest' => $plan->digest(),
            'user_id' => $person->id,
        ]);
    }
}
