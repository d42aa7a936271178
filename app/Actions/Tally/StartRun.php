<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Deliveries\PreparationInputs;
use App\Jobs\RunTally;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanVersion;
use App\Models\Run;
use App\Models\RunState;
use App\Models\User;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** Freezes the draft as a version of the plan, if it differs from the last one, and queues a run on the latest deliveries. */
final readonly class StartRun
{
    public function __construct(private Connection $database) {}

    /**
     * @throws Conflict when a side has no delivery
     * @throws \NineTally\Core\Plan\UnusablePlan when the draft cannot be used on these deliveries
     */
    public function __invoke(Dataset $dataset, User $person): Run
    {
        $run = $this->database->transaction(function () use ($dataset, $person): Run {
            $dataset = Dataset::query()->lockForUpdate()->findOrFail($dataset->id);
            $goingOn = $dataset->runs()->whereIn('state', RunState::goingOn())->first();
            if ($goingOn !== null) {
                return $goingOn;
            }
            $source = $this->delivery($dataset, Side::Source);
            $target = $this->delivery($dataset, Side::Target);
            $plan = $this->plan($dataset);
            $plan->mustFit(
                $plan->preparedColumns(Side::Source, $source->namedColumns()),
                $plan->preparedColumns(Side::Target, $target->namedColumns()),
            );
            $inputs = PreparationInputs::now($dataset, $plan->source, $plan->target);

            return Run::query()->create([
                'dataset_id' => $dataset->id,
                'plan_version_id' => $this->version($dataset, $plan, $person)->id,
                'source_delivery_id' => $source->id,
                'target_delivery_id' => $target->id,
                'state' => RunState::Queued,
                'done' => 0.0,
                'figures' => [],
                'parameters' => (object) $inputs->parameters,
                'reference_deliveries' => (object) $inputs->references,
                'attempts' => 0,
                'user_id' => $person->id,
            ]);
        });
        if ($run->wasRecentlyCreated) {
            RunTally::dispatch($run->id);
        }

        return $run;
    }

    private function delivery(Dataset $dataset, Side $side): Delivery
    {
        return $dataset->latestDelivery($side)
            ?? throw Conflict::because('no-delivery', "The {$side->value} side has no delivery yet. Deliver both sides first.");
    }

    private function plan(Dataset $dataset): Plan
    {
        $draft = $dataset->draft()->first() ?? throw Conflict::because('no-plan', 'There is no plan yet. Open Match and choose the key.');

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
