<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\DeliveryReader;
use App\Models\Delivery;
use App\Models\KeyCount;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\Advice\KeyUniqueness;

/** Counts a key on the whole delivery. */
final class CountKeyOfDelivery implements ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 1800;

    public function __construct(private readonly int $keyCountId) {}

    public function handle(DeliveryReader $reader): void
    {
        $count = KeyCount::query()->find($this->keyCountId);
        $delivery = $count === null ? null : Delivery::query()->find($count->delivery_id);
        if ($count === null || $delivery === null || $count->state === 'counted') {
            return;
        }
        $uniqueness = KeyUniqueness::count($reader->open($delivery), $count->columns);
        $count->update([
            'state' => 'counted',
            'rows' => $uniqueness->rows,
            'unique_rows' => $uniqueness->uniqueRows,
            'repeated_rows' => $uniqueness->repeatedRows,
            'unkeyed_rows' => $uniqueness->unkeyedRows,
        ]);
    }

    public function failed(): void
    {
        // Removed, so that the next look at the key counts it again.
        KeyCount::query()->whereKey($this->keyCountId)->where('state', '!=', 'counted')->delete();
    }
}
