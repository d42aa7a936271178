<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Delivery;
use App\Models\KeyCount;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\Advice\KeyUniqueness;
use NineTally\Core\Plan\SideRules;

/** Counts a key on the whole delivery. */
final class CountKeyOfDelivery implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 1800;

    public function __construct(private readonly int $keyCountId) {}

    public function handle(PreparedSides $sides): void
    {
        $count = KeyCount::query()->find($this->keyCountId);
        $delivery = $count === null ? null : Delivery::query()->find($count->delivery_id);
        if ($count === null || $delivery === null || $count->state === 'counted') {
            return;
        }
        $rules = $delivery->dataset->draft()->first()?->rules($delivery->side) ?? new SideRules;
        if (KeyCount::digestOf($count->columns, $rules) !== $count->columns_digest) {
            // The steps have changed meanwhile: what would be counted is not what was asked.
            $count->delete();

            return;
        }
        $uniqueness = KeyUniqueness::count(
            $sides->reader($delivery, $rules, PreparationInputs::now($delivery->dataset, $rules)),
            $count->columns,
        );
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
