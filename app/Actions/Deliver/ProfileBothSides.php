<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Jobs\ProfileDelivery;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryProfile;
use App\Queries\Review\SideMask;
use NineTally\Core\Profile\ValueDistribution;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * The columns of both sides next to each other, as delivered, with what they hold.
 *
 * @phpstan-import-type Column from ValueDistribution
 */
final readonly class ProfileBothSides
{
    public function __construct(private CompareDeliveries $changes) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function __invoke(Dataset $dataset, Sides $masks): array
    {
        $profiles = [
            'source' => $this->profile($dataset->latestDelivery(Side::Source)),
            'target' => $this->profile($dataset->latestDelivery(Side::Target)),
        ];
        $columns = ['source' => $this->byName($profiles['source']), 'target' => $this->byName($profiles['target'])];
        $rows = [];
        foreach ($this->pairs($dataset, $columns) as [$source, $target]) {
            [$ofSource, $ofTarget] = [
                $source === null ? null : $columns['source'][$source],
                $target === null ? null : $columns['target'][$target],
            ];
            $lie = ValueDistribution::of($ofSource, $ofTarget);
            $isHidden =
                ($source !== null && $masks->source->hidesDelivered($source)) ||
                ($target !== null && $masks->target->hidesDelivered($target));
            $rows[] = [
                'source' => $this->shown($ofSource, $isHidden),
                'target' => $this->shown($ofTarget, $isHidden),
                'by' => $lie->by,
                // A bin is called by what is in it.
                'bins' => $isHidden ? [] : $lie->bins,
                'looksChanged' => $lie->looksChanged,
            ];
        }

        return [
            'isReading' =>
                array_filter(
                    $profiles,
                    static fn(?DeliveryProfile $profile): bool => $profile !== null &&
                        $profile->columns === null &&
                        $profile->problem === null,
                ) !== [],
            'problem' => $profiles['source']->problem ?? ($profiles['target']->problem ?? null),
            'rows' => $rows,
            'changes' => [
                'source' => $this->changes->ofDelivery($dataset->latestDelivery(Side::Source)),
                'target' => $this->changes->ofDelivery($dataset->latestDelivery(Side::Target)),
            ],
        ];
    }

    /** @return array<string, Column> */
    private function byName(?DeliveryProfile $profile): array
    {
        $columns = [];
        foreach ($profile->columns ?? [] as $column) {
            $columns[$column['name']] = $column;
        }

        return $columns;
    }

    private function profile(?Delivery $delivery): ?DeliveryProfile
    {
        if ($delivery === null) {
            return null;
        }
        $profile = DeliveryProfile::query()->createOrFirst(['delivery_id' => $delivery->id]);
        if ($profile->wasRecentlyCreated) {
            ProfileDelivery::dispatch($delivery->id);
            $profile->refresh();
        }

        return $profile;
    }

    /**
     * By the plan's pairs, else by name; in the order of the source, then of what only the target has.
     *
     * @param  array{source: array<string, Column>, target: array<string, Column>}  $columns  by name
     * @return list<array{string|null, string|null}>
     */
    private function pairs(Dataset $dataset, array $columns): array
    {
        $document = $dataset->draft()->first()->document ?? ['key' => [], 'columnPairs' => []];
        $partners = array_column([...$document['columnPairs'], ...$document['key']], 'target', 'source');
        $pairs = $taken = [];
        foreach (array_keys($columns['source']) as $name) {
            $partner = $partners[$name] ?? $name;
            $partner = is_string($partner) && isset($columns['target'][$partner]) && ! isset($taken[$partner]) ? $partner : null;
            $pairs[] = [(string) $name, $partner];
            if ($partner !== null) {
                $taken[$partner] = true;
            }
        }
        foreach (array_keys(array_diff_key($columns['target'], $taken)) as $name) {
            $pairs[] = [null, (string) $name];
        }

        return $pairs;
    }

    /**
     * Everything but the sample, which is for drawing; of a column that is masked what counts its values, and none of them.
     *
     * @param  Column|null  $column
     * @return array<array-key, mixed>|null
     */
    private function shown(?array $column, bool $isHidden): ?array
    {
        return $column === null
            ? null
            : [
                ...array_diff_key($column, ['sample' => true]),
                ...$isHidden ? ['range' => null, 'sum' => null, 'blank_tokens' => [], 'most_frequent' => [], 'shapes' => []] : [],
            ];
    }
}
