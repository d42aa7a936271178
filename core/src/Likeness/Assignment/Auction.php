<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Assignment;

/**
 * An assignment whose sum of scores is at most a thousandth a row below the highest: rows of the source bid for those of the target
 * (Bertsekas 1988). For sets of rows that are too large to be solved exactly.
 */
final readonly class Auction
{
    /** By how much a bid is raised at least. */
    private const STEP = 0.001;

    /**
     * @param  array<int, list<array{int, float}>>  $candidates  by row of the source: rows of the target and scores above 0
     * @return array<int, int> source => target; without those for which nothing is left
     */
    public static function assigned(array $candidates): array
    {
        $prices = $holders = [];
        $waiting = new \SplQueue;
        foreach ($candidates as $source => $_) {
            $waiting->enqueue($source);
        }
        while (! $waiting->isEmpty()) {
            /** @var int $source */
            $source = $waiting->dequeue();
            [$best, $worth, $second] = [null, 0.0, 0.0];
            foreach ($candidates[$source] as [$target, $score]) {
                $left = $score - ($prices[$target] ?? 0.0);
                if ($left > $worth) {
                    [$best, $second, $worth] = [$target, $worth, $left];
                } elseif ($left > $second) {
                    $second = $left;
                }
            }
            if ($best === null) {
                // Everything that it could have costs more than it is worth, and prices never fall.
                continue;
            }
            $prices[$best] = ($prices[$best] ?? 0.0) + $worth - $second + self::STEP;
            if (isset($holders[$best])) {
                $waiting->enqueue($holders[$best]);
            }
            $holders[$best] = $source;
        }

        return array_flip($holders);
    }
}
