<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Run;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

/**
 * What the steps of a side use beside its delivery: values of parameters, and the deliveries that references were at the time. And what a
 * tally holds values against: the deliveries that records of other datasets were in.
 */
final readonly class PreparationInputs
{
    /**
     * @param  array<string, string>  $parameters
     * @param  array<string, int>  $references  name => delivery
     * @param  array<string, array<string, int>>  $records  name => side => delivery
     */
    public function __construct(public array $parameters = [], public array $references = [], public array $records = []) {}

    /** What a run is made of that its worker wrote down. */
    public static function ofRun(Run $run): self
    {
        return new self($run->parameters, $run->reference_deliveries, $run->record_deliveries);
    }

    /**
     * All that a tally of today would use.
     *
     * @param  array{source: int, target: int}  $deliveries  of its own sides
     */
    public static function ofTally(Dataset $dataset, Plan $plan, array $deliveries): self
    {
        $now = self::now($dataset, $plan->source, $plan->target);

        return new self($now->parameters, $now->references, RecordDeliveries::now($dataset, $plan, $deliveries));
    }

    /**
     * What a reference is now: a dataset of the migration, called by its name; its source side, or its target side where that is all there
     * is.
     */
    public static function deliveryOf(Dataset $dataset, string $reference): ?Delivery
    {
        $named = $dataset->migration->datasets()->whereRaw('lower(name) = lower(?)', [$reference])->whereKeyNot($dataset->id)->first();

        return $named?->latestDelivery(Side::Source) ?? $named?->latestDelivery(Side::Target);
    }

    /** As they are now. */
    public static function now(Dataset $dataset, SideRules ...$sides): self
    {
        $references = [];
        foreach ($sides as $rules) {
            foreach ($rules->preparation->references() as $name) {
                $delivery = self::deliveryOf($dataset, $name);
                if ($delivery !== null) {
                    $references[$name] = $delivery->id;
                }
            }
        }

        return new self($dataset->parameters, $references);
    }

    /**
     * @return array{parameters: array<string, string>, references: array<string, string>} all of it that decides about the rows of a side
     */
    public function of(SideRules $rules): array
    {
        $references = array_intersect_key($this->references, array_flip($rules->preparation->references()));

        return [
            'parameters' => array_intersect_key($this->parameters, array_flip($rules->preparation->parameters())),
            'references' => array_map(static fn(int $id): string => Delivery::query()->findOrFail($id)->digest, $references),
        ];
    }
}
