<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanDraft;
use App\Questions\BothSides;
use App\Questions\CandidateKeys;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** The draft of a dataset's plan. The first one is proposed: columns of equal name are paired, and a key is looked for. */
final readonly class DraftOf
{
    public function __construct(private DeliverySample $sample) {}

    public function __invoke(Dataset $dataset): ?PlanDraft
    {
        $draft = $dataset->draft()->first();
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
        $key = $this->key($dataset, Plan::pairsByName($sourceColumns, $targetColumns));

        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => array_map(static fn(string $name): array => ['source' => $name, 'target' => $name], $key),
            'columnPairs' => array_map(
                static fn(ColumnPair $pair): array => $pair->toArray(),
                Plan::pairsByName($sourceColumns, $targetColumns, $key),
            ),
            'leftOut' => ['source' => [], 'target' => []],
        ];
    }

    /**
     * @param  list<ColumnPair>  $pairs
     * @return list<string> names of the source; empty when no set of columns tells the rows of the samples apart
     */
    private function key(Dataset $dataset, array $pairs): array
    {
        $sides = BothSides::of($dataset);
        $paired = array_map(static fn(ColumnPair $pair): array => ['source' => $pair->source, 'target' => $pair->target], $pairs);
        if ($sides === null || $paired === []) {
            return [];
        }
        $names = array_column($paired, 'source');
        $best = (new KeyAdvice)->keys($names, CandidateKeys::cells($this->sample, $sides, $paired))[0] ?? null;

        return $best === null ? [] : array_map(static fn(int $place): string => $names[$place], $best->places);
    }
}
