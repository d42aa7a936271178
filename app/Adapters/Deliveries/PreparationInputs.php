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
     * @param  array<string, int>  $matched  name of the table of matched rows => tally
     */
    public function __construct(
        public array $parameters = [],
        public array $references = [],
        public array $records = [],
        public array $matched = [],
    ) {}

    /** What a run is made of that its worker wrote down. */
    public static function ofRun(Run $run): self
    {
        return new self($run->parameters, $run->reference_deliveries, $run->record_deliveries, $run->matched_tallies);
    }

    /**
     * All that a tally of today would use.
     *
     * @param  array{source: int, target: int}  $deliveries  of its own sides
     */
    public static function ofTally(Dataset $dataset, Plan $plan, array $deliveries): self
    {
        $now = self::now($dataset, $plan->source, $plan->target);

        return new self($now->parameters, $now->references, RecordDeliveries::now($dataset, $plan, $deliveries), $now->matched);
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
        $references = $matched = [];
        foreach ($sides as $rules) {
            foreach ($rules->preparation->references() as $name) {
                $delivery = self::deliveryOf($dataset, $name);
                $tally = $delivery === null ? MatchedTable::datasetOf($dataset, $name)?->latestTally() : null;
                if ($delivery !== null) {
                    $references[$name] = $delivery->id;
                } elseif ($tally !== null) {
                    $matched[$name] = $tally->id;
                }
            }
        }

        return new self($dataset->parameters, $references, matched: $matched);
    }

    /**
     * @return array{parameters: array<string, string>, references: array<string, string>} all of it that decides about the rows of a side
     */
    public function of(SideRules $rules): array
    {
        $named = array_flip($rules->preparation->references());
        $references = array_intersect_key($this->references, $named);

        return [
            'parameters' => array_intersect_key($this->parameters, array_flip($rules->preparation->parameters())),
            'references' => array_map(static fn(int $id): string => Delivery::query()->findOrFail($id)->digest, $references) +
                array_map(static fn(int $id): string => "tally {$id}", array_intersect_key($this->matched, $named)),
        ];
    }
}
