<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/** Runs the steps of the draft on every row of a delivery. Run again it finds its work done. */
final class PrepareDelivery implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly int $deliveryId) {}

    public function handle(PreparedSides $sides): void
    {
        $delivery = Delivery::query()->findOrFail($this->deliveryId);
        $rules = $delivery->dataset->draft()->first()?->rules($delivery->side);
        try {
            if ($rules !== null) {
                $sides->reader($delivery, $rules, PreparationInputs::now($delivery->dataset, $rules));
            }
        } catch (NineTallyException) {
            // The trial tells the person what is wrong with the steps; there is nothing to keep.
        }
    }
}
