<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Plan\Plan;

/** What the key let pass, by its columns, as a summary says it. */
final readonly class KeyForgiven
{
    /**
     * @return list<array{source: string, target: string, cause: string, cells: int,
     *     examples: list<array{source: string, target: string}>}>
     */
    public static function of(Plan $plan, MatchCounts $counts): array
    {
        $forgiven = [];
        foreach ($plan->key as $position => $column) {
            $causes = $counts->keyForgiven[$position] ?? [];
            ksort($causes);
            foreach ($causes as $cause => $pattern) {
                $forgiven[] = [
                    'source' => $column->source,
                    'target' => $column->target,
                    'cause' => $cause,
                    'cells' => $pattern->cells,
                    'examples' => $pattern->examples(),
                ];
            }
        }

        return $forgiven;
    }
}
