<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Adapters\Deliveries\PreparationInputs;
use App\Models\Dataset;
use App\Models\Tally;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** Whether a run of today would be made of the same as the latest tally: plan, deliveries, references, records and parameters. */
final readonly class MadeOfTheSame
{
    /** @throws \NineTally\Core\Plan\UnusablePlan when the draft cannot be read as a plan */
    public function latestTallyOf(Dataset $dataset): ?Tally
    {
        $tally = $dataset->latestTally();
        $draft = $dataset->draft()->first();
        if ($tally === null || $draft === null) {
            return null;
        }
        $plan = Plan::fromJson(CanonicalJson::of($draft->document));
        $inputs = PreparationInputs::ofTally(
            $dataset,
            $plan,
            ['source' => $tally->source_delivery_id, 'target' => $tally->target_delivery_id],
        );
        $isSame =
            $tally->planVersion->digest === $plan->digest() &&
            $tally->source_delivery_id === $dataset->latestDelivery(Side::Source)?->id &&
            $tally->target_delivery_id === $dataset->latestDelivery(Side::Target)?->id &&
            $tally->run->parameters == $inputs->parameters &&
            $tally->run->reference_deliveries == $inputs->references &&
            $tally->run->matched_tallies == $inputs->matched &&
            $tally->run->record_deliveries == $inputs->records;

        return $isSame ? $tally : null;
    }
}
