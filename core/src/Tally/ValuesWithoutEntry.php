<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Plan\Plan;

/** Values of the source that a crosswalk does not know. */
final class ValuesWithoutEntry
{
    /**
     * @return list<array{source: string, target: string, cells: int, values: array<string, int>|null}> values of the source that a
     *     crosswalk does not know, with their cells; null where they are too many to list
     */
    public static function of(Plan $plan, MatchCounts $counts): array
    {
        $found = [];
        foreach ($plan->columnPairs as $position => $pair) {
            $ofPair = $counts->pairs[$position];
            if ($ofPair->withoutEntry > 0) {
                $values = $ofPair->valuesWithoutEntry;
                if ($values !== null) {
                    ksort($values, SORT_STRING);
                    arsort($values);
                }
                $found[] = ['source' => $pair->source, 'target' => $pair->target, 'cells' => $ofPair->withoutEntry, 'values' => $values];
            }
        }

        return $found;
    }
}
