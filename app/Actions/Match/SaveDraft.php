<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\User;
use NineTally\Core\Comparison\ColumnPair;

/** Keeps the draft as the person left it. Whether it can be used is checked when it is tallied, and shown before. */
final readonly class SaveDraft
{
    /**
     * @param  list<array{source: string, target: string}>  $key
     * @param  list<array{source: string, target: string}>  $columnPairs
     * @param  array{source: list<string>, target: list<string>}  $leftOut
     */
    public function __invoke(Dataset $dataset, array $key, array $columnPairs, array $leftOut, User $person): PlanDraft
    {
        return PlanDraft::query()->updateOrCreate(['dataset_id' => $dataset->id], [
            'document' => [
                'formatVersion' => \NineTally\Core\Plan\Plan::FORMAT_VERSION,
                'key' => $key,
                'columnPairs' => array_map(static fn(array $pair): array => ColumnPair::between($pair['source'], $pair['target'])->toArray(), $columnPairs),
                'leftOut' => $leftOut,
            ],
            'user_id' => $person->id,
        ]);
    }
}
