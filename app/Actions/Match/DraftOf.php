<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanDraft;
use App\Questions\BothSides;
use App\Questions\CandidateKeys;
use NineTally\Core\Advice\AdvisedKey;
use NineTally\Core\Advice\ColumnNames;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * The draft of a dataset's plan. The first one is proposed: columns of equal name, or whose names are the same words, are paired, and a
 * key is looked for.
 */
final readonly class DraftOf
{
    public function __construct(private DeliverySample $sample) {}

    public function __invoke(Dataset $dataset): ?PlanDraft
    {
        $draft = $dataset->draftNow();
        $source = $dataset->latestDelivery(Side::Source);
        $target = $dataset->latestDelivery(Side::Target);
        if ($draft !== null || $source === null || $target === null) {
            return $draft;
        }

        // Two people may open the station at once; the first proposal stays.
        return PlanDraft::query()->firstOrCreate(
            ['dataset_id' => $dataset->id],
            ['document' => $this->proposed($dataset, $source, $target), 'number' => 1],
        );
    }

    /** @return array<string, mixed> a plan's document, but that its key may still be empty */
    private function proposed(Dataset $dataset, Delivery $source, Delivery $target): array
    {
        [$sourceColumns, $targetColumns] = [$source->namedColumns(), $target->namedColumns()];
        $words = array_filter(
            ColumnNames::pairs($sourceColumns->names, $targetColumns->names),
            static fn(string $target, string $source): bool => $target !== $source,
            ARRAY_FILTER_USE_BOTH,
        );
        $key = $this->key($dataset, Plan::pairsByName($sourceColumns, $targetColumns, map: $words));

        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => array_map(static fn(string $name): array => ['source' => $name, 'target' => $words[$name] ?? $name], $key),
            'columnPairs' => array_map(
                static fn(ColumnPair $pair): array => $pair->toArray(),
                Plan::pairsByName($sourceColumns, $targetColumns, $key, $words),
            ),
            'leftOut' => ['source' => [], 'target' => []],
            // How both systems write their values was said for another dataset of the migration.
            ...$dataset->migration->plan_defaults ?? [],
        ];
    }

    /**
     * @param  list<ColumnPair>  $pairs
     * @return list<string> names of the source; empty when no set of columns tells the rows apart and joins half of them, or nobody knows
     *     yet
     */
    private function key(Dataset $dataset, array $pairs): array
    {
        $sides = BothSides::of($dataset);
        $paired = array_map(static fn(ColumnPair $pair): array => ['source' => $pair->source, 'target' => $pair->target], $pairs);
        if ($sides === null || $paired === []) {
            return [];
        }
        $names = array_column($paired, 'source');
        // Of samples nobody can tell whether their rows meet: such a key is put into the draft once all rows were looked at.
        if (! $this->sample->isWhole($sides->delivery(Side::Source)) || ! $this->sample->isWhole($sides->delivery(Side::Target))) {
            return [];
        }
        $cells = CandidateKeys::cells($this->sample, $sides, $paired);
        $keys = array_map(
            static fn(AdvisedKey $key): array => ['places' => $key->places, 'share' => KeyAdvice::share($cells, $key->places)],
            (new KeyAdvice)->keys($names, $cells),
        );
        $best = $keys[KeyAdvice::ranked(KeyAdvice::ranking($names, $cells), $keys)[0] ?? -1] ?? null;

        return $best === null || $best['share'] < AdviseKeys::AT_LEAST
            ? []
            : array_map(static fn(int $place): string => $names[$place], $best['places']);
    }
}
