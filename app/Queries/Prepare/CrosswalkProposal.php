<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Queries\Review\SideMask;
use NineTally\Core\Advice\CrosswalkAdvice;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Sides;

/**
 * A crosswalk to begin with: each value of a column that the sample shows, as what it probably is on the other side where the values tell
 * by themselves, else as itself, which changes nothing.
 */
final readonly class CrosswalkProposal
{
    /** What has more values is no list that anybody looks through. */
    private const MOST = 200;

    public function __construct(private DeliverySample $sample) {}

    /**
     * @param  SideRules  $before  the steps up to where the values are exchanged
     * @param  Sides<SideMask>  $masks
     * @return array{entries: list<array{source: string, target: string}>, values: int, others: int, same: int, isMasked: bool,
     *     other: string|null}
     */
    public function of(Dataset $dataset, Delivery $delivery, SideRules $before, string $column, Sides $masks): array
    {
        $isOfDataset = $delivery->dataset_id === $dataset->id;
        $other = $isOfDataset ? $dataset->latestDelivery($delivery->side->other()) : null;
        $counterpart = $other === null ? null : $this->counterpart($dataset, $delivery, $column);
        $isMasked =
            in_array($column, $masks->of($delivery->side)->anywhere(), true) ||
            ($counterpart !== null && in_array($counterpart, $masks->of($delivery->side->other())->anywhere(), true));
        if ($isMasked) {
            return ['entries' => [], 'values' => 0, 'others' => 0, 'same' => 0, 'isMasked' => true, 'other' => $counterpart];
        }
        $values = $this->values($delivery, $before, $column);
        $others = $other === null || $counterpart === null
            ? []
            : $this->values($other, $dataset->draft()->first()?->rules($other->side) ?? new SideRules, $counterpart);
        $known = CrosswalkAdvice::entries($values, $others);

        return [
            'entries' => array_map(
                static fn(string $value): array => ['source' => $value, 'target' => $known[$value] ?? $value],
                count($values) > self::MOST ? [] : $values,
            ),
            'values' => count($values),
            'others' => count($others),
            'same' => count(array_intersect($values, $others)),
            'isMasked' => false,
            'other' => $counterpart,
        ];
    }

    /** The column that the plan has for it on the other side. */
    private function counterpart(Dataset $dataset, Delivery $delivery, string $column): ?string
    {
        $document = $dataset->draft()->first()->document ?? [];
        /** @var list<array{source: string, target: string}> $pairs */
        $pairs = [...$document['key'] ?? [], ...$document['columnPairs'] ?? []];
        foreach ($pairs as $pair) {
            if ($pair[$delivery->side->value] === $column) {
                return $pair[$delivery->side->other()->value];
            }
        }

        return null;
    }

    /** @return list<string> each once, in the order of the alphabet */
    private function values(Delivery $delivery, SideRules $rules, string $column): array
    {
        ['columns' => $columns, 'rows' => $rows] = $this->sample->prepared($delivery, $rules, PHP_INT_MAX);
        $place = array_search($column, $columns, true);
        $values =
            $place === false
                ? []
                : array_unique(array_filter(array_column($rows, $place), static fn(string $value): bool => $value !== ''));
        sort($values, SORT_STRING);

        return $values;
    }
}
