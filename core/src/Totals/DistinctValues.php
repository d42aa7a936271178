<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Matching\Spill\SortedRuns;
use NineTally\Core\Row\KeyTuple;

/**
 * Distinct values of both sides, counted by merging the sorted runs of each and holding the two against each other: exact,
 *
 * @phpstan-import-type Run from SortedRuns
 *
 * @phpstan-type Only array{count: int, values: list<string>}
 * @phpstan-type OfGroup array{source: int, target: int, only: array{source: Only, target: Only}}
 */
final readonly class DistinctValues
{
    /** Of the values that one side has alone, so many are told for each group. */
    public const TOLD = 20;

    private const NONE = ['source' => 0, 'target' => 0, 'only' => [
        'source' => ['count' => 0, 'values' => []],
        'target' => ['count' => 0, 'values' => []],
    ]];

    /**
     * @param  list<Run>  $source  in the order of the side
     * @param  list<Run>  $target
     * @return array<string, OfGroup> by group as groups meet
     */
    public static function of(array $source, array $target): array
    {
        $groups = [];
        [$ofSource, $ofTarget] = [self::merged($source), self::merged($target)];
        while ($ofSource->valid() || $ofTarget->valid()) {
            $order = match (true) {
                ! $ofTarget->valid() => -1,
                ! $ofSource->valid() => 1,
                default => strcmp($ofSource->key(), $ofTarget->key()),
            };
            $key = $order <= 0 ? $ofSource->key() : $ofTarget->key();
            $group = substr($key, 0, (int) strrpos($key, KeyTuple::SEPARATOR));
            $counts = $groups[$group] ?? self::NONE;
            foreach (['source' => [$ofSource, $order <= 0], 'target' => [$ofTarget, $order >= 0]] as $side => [$values, $hasIt]) {
                if (! $hasIt) {
                    continue;
                }
                $counts[$side]++;
                if ($order !== 0) {
                    $counts['only'][$side]['count']++;
                    if ($counts['only'][$side]['count'] <= self::TOLD) {
                        $counts['only'][$side]['values'][] = $values->current();
                    }
                }
                $values->next();
            }
            $groups[$group] = $counts;
        }

        return $groups;
    }

    /**
     * @param  list<Run>  $runs
     * @return \Generator<string, string> by group and value as they meet, each once, in their order: the least of how it is written, which
     *     is the same whatever the order of the rows
     */
    private static function merged(array $runs): \Generator
    {
        [$before, $least] = [null, ''];
        foreach (SortedRuns::merged($runs) as $key => $value) {
            if ($key !== $before) {
                if ($before !== null) {
                    yield $before => $least;
                }
                [$before, $least] = [$key, $value];
            } elseif (strcmp($value, $least) < 0) {
                $least = $value;
            }
        }
        if ($before !== null) {
            yield $before => $least;
        }
    }
}
