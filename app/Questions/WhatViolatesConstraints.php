<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\PreparationInputs;
use App\Models\Delivery;
use App\Models\Tally;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Profile\ColumnConstraint;
use NineTally\Core\Profile\ConstraintViolations;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/**
 * Which values are not as the plan says that the target demands: those of the source, which will not fit, or of the target itself.
 *
 * @phpstan-import-type DemandDocument from ColumnConstraint
 */
final readonly class WhatViolatesConstraints implements Question
{
    private const ROWS_BETWEEN_REPORTS = 5_000;

    /**
     * @param  array<string, DemandDocument>  $demands  by target column
     * @param  array<string, string>  $columns  target column => the column of the side that is looked at
     */
    private function __construct(
        private int $delivery,
        private array $demands,
        private array $columns,
        private SideRules $rules,
        private PreparationInputs $inputs,
    ) {}

    /** The newest of the source, by a draft. */
    public static function of(Delivery $delivery, Plan $plan): self
    {
        return self::on(Side::Source, $delivery, $plan, PreparationInputs::now($delivery->dataset, $plan->source));
    }

    /** A side as it was tallied. */
    public static function ofTally(Tally $tally, Side $side): self
    {
        return self::on(
            $side,
            $side === Side::Source ? $tally->sourceDelivery : $tally->targetDelivery,
            $tally->planVersion->plan(),
            PreparationInputs::ofRun($tally->run),
        );
    }

    private static function on(Side $side, Delivery $delivery, Plan $plan, PreparationInputs $inputs): self
    {
        $demanded = array_keys($plan->columnRules->demands);
        $columns = $side === Side::Target ? array_combine($demanded, $demanded) : array_intersect_key(
            [
                ...array_combine($plan->keyNames(Side::Target), $plan->keyNames(Side::Source)),
                ...array_combine($plan->pairedNames(Side::Target), $plan->pairedNames(Side::Source)),
            ],
            $plan->columnRules->demands,
        );

        return new self(
            $delivery->id,
            array_intersect_key($plan->columnRules->demands, $columns),
            $columns,
            $plan->side($side),
            $inputs,
        );
    }

    public function kind(): string
    {
        return 'what-will-not-fit';
    }

    public function about(): array
    {
        return [$this->delivery, $this->demands, $this->columns, $this->rules->toArray(), $this->inputs->of($this->rules)];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $delivery = Delivery::query()->findOrFail($this->delivery);
        $reader = $material->sides->reader(
            $delivery,
            $this->rules,
            $this->inputs,
            static fn(int $bytes) => $onProgress(intdiv($bytes, 2), $delivery->bytes),
        );
        $demands = $places = [];
        foreach ($this->columns as $target => $source) {
            $place = $reader->columns()->positionOf($source);
            $demands[$place] = ColumnConstraint::of(
                $this->demands[$target],
                $this->rules->reading($source, \NineTally\Core\Value\Kind::Number),
            );
            $places[$place] = ['source' => $source, 'target' => (string) $target];
        }
        $misfits = new ConstraintViolations($demands);
        $rows = 0;
        foreach ($reader->records() as $record) {
            if ($record instanceof Row) {
                $misfits->see($reader->place($record->line)->packed(), $record->cells);
                ++$rows % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress(intdiv($delivery->bytes, 2), $delivery->bytes);
            }
        }
        $found = $misfits->found();

        return [
            'rows' => $rows,
            'columns' => array_map(
                static fn(array $names, int $place): array => [
                    ...$names,
                    'unmet' => array_map(
                        static fn(string $part, array $so): array => [
                            'part' => $part,
                            'count' => $so['count'],
                            'examples' => array_map(static function (array $example): array {
                                $at = RecordPlace::ofPacked($example['packedPlace']);

                                return ['part' => $at->part, 'line' => $at->line, 'value' => $example['value']];
                            }, $so['examples']),
        ],
                        array_keys($found[$place] ?? []),
                        $found[$place] ?? []
                    )],
                $places,
                array_keys($places)
            )];
    }
}
