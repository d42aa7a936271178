<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Dataset;
use App\Models\Delivery;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\Preparation;

/** A column of a reference, whose entries the values of a side are held against: prepared as the plan says. */
final readonly class ValuesOfReference
{
    private function __construct(
        private int $delivery,
        private SideRules $rules,
        private PreparationInputs $inputs,
        public string $column,
    ) {}

    /** Null where the migration has no such dataset, or it has delivered nothing. */
    public static function of(Dataset $dataset, string $name, string $column, Preparation $ofSide): ?self
    {
        $delivery = PreparationInputs::deliveryOf($dataset, $name);
        $rules = new SideRules(preparation: $ofSide->referenceRules[$name]->preparation ?? new Preparation);

        return $delivery === null ? null : new self($delivery->id, $rules, PreparationInputs::now($dataset, $rules), $column);
    }

    /** @return array<array-key, mixed> */
    public function about(): array
    {
        return [$this->delivery, $this->rules->preparation->digest(), $this->inputs->of($this->rules), $this->column];
    }

    public function delivery(): Delivery
    {
        return Delivery::query()->with('parts')->findOrFail($this->delivery);
    }

    public function rules(): SideRules
    {
        return $this->rules;
    }

    public function reader(PreparedSides $sides): Reader
    {
        return $sides->reader($this->delivery(), $this->rules, $this->inputs);
    }
}
