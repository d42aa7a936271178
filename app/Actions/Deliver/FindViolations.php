<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Models\Dataset;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\WhatViolatesConstraints;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** The values of the latest source delivery that the target will not take, by what the draft says that it demands. */
final readonly class FindViolations
{
    public function __construct(private Answers $answers) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset, SideMask $mask): array
    {
        $nothing = ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'counted' => null];
        $draft = $dataset->draft()->first();
        $source = $dataset->latestDelivery(Side::Source);
        if ($draft === null || $source === null || ($draft->document['demands'] ?? []) === []) {
            return $nothing;
        }
        if ($draft->document['key'] === []) {
            return [...$nothing, 'problem' => 'Choose a key in Match first: it says which source column becomes which target column.'];
        }
        $answer = $this->answers->to(WhatViolatesConstraints::of($source, Plan::fromJson(CanonicalJson::of($draft->document))));

        return [...$answer->progress(), 'counted' => $this->shown($answer->content, $mask)];
    }

    /**
     * @param  array<string, mixed>|null  $counted
     * @return array<string, mixed>|null
     */
    private function shown(?array $counted, SideMask $mask): ?array
    {
        /** @var list<array{source: string, unmet: list<array{examples: list<array{value: string}>}>}> $columns */
        $columns = $counted['columns'] ?? [];
        foreach ($columns as $place => $column) {
            foreach ($mask->hidesPrepared($column['source']) ? $column['unmet'] : [] as $nth => $unmet) {
                $columns[$place]['unmet'][$nth]['examples'] = array_map(
                    static fn(array $example): array => [...$example, 'value' => $mask->text($example['value'])],
                    $unmet['examples'],
                );
            }
        }

        return $counted === null ? null : [...$counted, 'columns' => $columns];
    }
}
