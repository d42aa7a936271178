<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Dataset;
use App\Models\Delivery;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Records\RecordSource;
use NineTally\Core\Row\Side;

/** Records of other datasets, as they were delivered when a run began: of each side its own, or the other's where that is all there is. */
final readonly class RecordDeliveries implements RecordSource
{
    /** @param array<string, array<string, int>> $deliveries by name of the dataset, and side */
    public function __construct(private DeliveryReader $reader, private array $deliveries) {}

    /**
     * The newest deliveries of what a plan wants records of.
     *
     * @param  array{source: int, target: int}  $own  deliveries that the dataset itself is tallied on: its rows may refer to each other
     * @return array<string, array<string, int>> by name of the dataset, and side
     */
    public static function now(Dataset $dataset, Plan $plan, array $own): array
    {
        $deliveries = [];
        foreach ($plan->columnRules->records as $rule) {
            $named = $dataset->migration->datasets()->whereRaw('lower(name) = lower(?)', [$rule->in])->first();
            $found = $named?->id === $dataset->id ? $own : [
                'source' => $named?->latestDelivery(Side::Source)?->id,
                'target' => $named?->latestDelivery(Side::Target)?->id,
            ];
            $deliveries[$rule->in] = array_filter($found, is_int(...));
        }

        return $deliveries;
    }

    public function stack(string $dataset, Side $side): ?PartStack
    {
        $sides = $this->deliveries[$dataset] ?? [];
        $id = $sides[$side->value] ?? $sides[$side->other()->value] ?? null;

        return $id === null ? null : $this->reader->stack(Delivery::query()->findOrFail($id));
    }
}
