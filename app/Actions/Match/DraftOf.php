<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\DeliveryReader;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\PlanDraft;
use NineTally\Core\Advice\PlanProposal;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/** The draft of a dataset's plan. The first one is proposed: columns of equal name are paired, and a key is looked for. */
final readonly class DraftOf
{
    public function __construct(private DeliveryReader $reader, private PlanProposal $proposal, private int $sampleRows) {}

    public function __invoke(Dataset $dataset): ?PlanDraft
    {
        $draft = $dataset->draft()->first();
        $source = $dataset->latestDelivery(Side::Source);
        $target = $dataset->latestDelivery(Side::Target);
        if ($draft !== null || $source === null || $target === null) {
            return $draft;
        }

        // Two people may open the station at once; the first proposal stays.
        return PlanDraft::query()->firstOrCreate(['dataset_id' => $dataset->id], ['document' => $this->proposed($source, $target)]);
    }

    /** @return array<string, mixed> a plan's document, but that its key may still be empty */
    private function proposed(Delivery $source, Delivery $target): array
    {
        [$sourceColumns, $targetColumns] = [$source->namedColumns(), $target->namedColumns()];
        $key = $this->proposal->key($sourceColumns, $targetColumns, $this->sample($source));

        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => array_map(static fn(string $name): array => ['source' => $name, 'target' => $name], $key),
            'columnPairs' => array_map(static fn(ColumnPair $pair): array => $pair->toArray(), Plan::pairsByName($sourceColumns, $targetColumns, $key)),
            'leftOut' => ['source' => [], 'target' => []],
        ];
    }

    /** @return \Generator<int, Row> */
    private function sample(Delivery $delivery): \Generator
    {
        $rows = 0;
        foreach ($this->reader->stack($delivery)->records() as $origin => $record) {
            if (is_array($record)) {
                yield new Row($origin, $record);
                if (++$rows === $this->sampleRows) {
                    return;
                }
            }
        }
    }
}
