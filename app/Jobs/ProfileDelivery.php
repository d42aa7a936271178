<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\DeliveryReader;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use App\Problems\ContentPurged;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\Profile\SideProfile;

/** Looks at every value of a delivery once. Run again it finds its work done. */
final class ProfileDelivery implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly int $deliveryId)
    {
        // Minutes for a large delivery, and nobody waits: one worker alone does it, when there is nothing else.
        $this->onQueue('profile');
    }

    public function handle(DeliveryReader $reader): void
    {
        $profile = DeliveryProfile::query()->firstOrCreate(['delivery_id' => $this->deliveryId]);
        if ($profile->columns !== null) {
            return;
        }
        try {
            $stack = $reader->stack(Delivery::query()->findOrFail($this->deliveryId));
        } catch (ContentPurged $purged) {
            $profile->update(['problem' => $purged->getMessage()]);

            return;
        }
        $profile->update(['columns' => SideProfile::ofRecords($stack->columns, $stack->records())->toArray()['columns']]);
    }

    public function failed(): void
    {
        DeliveryProfile::query()
            ->whereKey($this->deliveryId)
            ->whereNull('columns')
            ->update([
                'problem' =>
                    'The values could not be looked at to their end. Have it done again; if that does not help, tell whoever runs '.
                        'Nine Tally.',
            ]);
    }
}
