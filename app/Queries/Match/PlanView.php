<?php

declare(strict_types=1);

namespace App\Queries\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanDraft;
use App\Models\User;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use App\Queries\Tally\MatchedOrder;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Preparation\UnusableStep;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\DeclaredInWords;
use NineTally\Core\Value\DeclaredReading;

/**
 * The draft with the columns of both sides, a few values of each, and what keeps the draft from being tallied.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class PlanView
{
    private const EXAMPLES = 3;

    /** Looked at for examples. */
    private const ROWS = 40;

    public function __construct(private DeliverySample $sample, private Masks $masks) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset, ?PlanDraft $draft, User $person): array
    {
        $masks = Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));
        $source = $dataset->latestDelivery(Side::Source);
        $target = $dataset->latestDelivery(Side::Target);
        $latest = $dataset->planVersions()->orderByDesc('number')->first();

        return [
            'draft' => $draft === null
                ? null
                : array_diff_key($this->masks->plan($dataset, $draft->document, $person), ['formatVersion' => true]),
            'number' => $draft->number ?? 0,
            'version' => $latest?->number,
            'parameters' => (object) $dataset->parameters,
            'defaults' => $this->defaults($dataset),
            'source' => $this->side($source, $draft, $masks->source),
            'target' => $this->side($target, $draft, $masks->target),
            'problems' => $draft === null || $source === null || $target === null ? [] : [
                ...$this->circle($dataset),
                ...$this->problems($draft, $source, $target),
            ],
        ];
    }

    /** @return list<string> what new datasets of the migration begin with, in words */
    private function defaults(Dataset $dataset): array
    {
        $kept = $dataset->migration->plan_defaults ?? [];
        $words = [];
        foreach (Side::cases() as $side) {
            /** @var Declared $declared */
            $declared = $kept['sides'][$side->value] ?? [];
            $label = $side === Side::Source ? $dataset->migration->source_label : $dataset->migration->target_label;
            foreach (DeclaredInWords::of($declared) as $form) {
                $words[] = "{$label}: {$form}";
            }
        }

        return $words;
    }

    /** @return array{rows: int, columns: list<array{name: string, examples: list<string>}>}|null */
    private function side(?Delivery $delivery, ?PlanDraft $draft, SideMask $mask): ?array
    {
        if ($delivery === null) {
            return null;
        }
        ['columns' => $columns, 'rows' => $rows] = $this->sample->prepared(
            $delivery,
            $draft?->rules($delivery->side) ?? new SideRules,
            self::ROWS,
        );

        return [
            'rows' => $delivery->delivered_count,
            'columns' => array_map(
                static fn(string $name, int $position): array => [
                    'name' => $name,
                    'examples' => $mask->hidesPrepared($name) ? [Mask::VALUE] : array_slice(
                        array_values(
                            array_unique(array_filter(array_column($rows, $position), static fn(string $value): bool => $value !== '')),
                        ),
                        0,
                        self::EXAMPLES,
                    ),
                ],
                $columns,
                array_keys($columns),
            ),
        ];
    }

    /** @return list<array{pointer: string, detail: string}> */
    private function circle(Dataset $dataset): array
    {
        $circle = MatchedOrder::circleOf($dataset);

        return $circle === null ? [] : [['pointer' => '/sides', 'detail' => $circle]];
    }

    /** @return list<array{pointer: string, detail: string}> */
    private function problems(PlanDraft $draft, Delivery $source, Delivery $target): array
    {
        if ($draft->document['key'] === []) {
            return [['pointer' => '/key', 'detail' => 'No key yet. Choose the columns that tell one row from another.']];
        }
        try {
            $plan = Plan::fromJson(CanonicalJson::of($draft->document));
            $plan->mustFit(
                $plan->preparedColumns(Side::Source, $source->namedColumns()),
                $plan->preparedColumns(Side::Target, $target->namedColumns()),
            );
        } catch (UnusableStep $unusable) {
            return [['pointer' => '/sides', 'detail' => $unusable->getMessage()]];
        } catch (UnusablePlan $unusable) {
            return array_map(
                static fn(Problem $problem): array => ['pointer' => $problem->pointer, 'detail' => $problem->message],
                $unusable->problems,
            );
        }

        return [];
    }
}
