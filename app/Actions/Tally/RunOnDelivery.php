<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Models\Delivery;
use App\Models\Draw;
use App\Models\DrawState;
use App\Problems\Conflict;
use NineTally\Core\NineTallyException;

/**
 * A new delivery is tallied by itself, where its dataset says so. What keeps it from being tallied stands in Match; the delivery is entered
 * all the same.
 */
final readonly class RunOnDelivery
{
    public function __construct(private StartRun $startRun) {}

    public function __invoke(Delivery $delivery): void
    {
        // What is drawn is tallied when both sides are here.
        $isDrawn = Draw::query()->where('dataset_id', $delivery->dataset_id)->whereIn('state', DrawState::going())->exists();
        if (! $delivery->dataset->runs_on_delivery || $isDrawn) {
            return;
        }
        try {
            ($this->startRun)($delivery->dataset, $delivery->user);
        } catch (Conflict|NineTallyException) {
            // There is no second side yet, or the plan does not fit: nobody waits for an answer here.
        }
    }
}
