<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Row;

/**
 * Proposes a first key from a sample: the shortest run of leading columns, present on both sides, that tells the sampled
 * rows of the source apart.
 */
final readonly class PlanProposal
{
    /** A key of more columns than this is seldom meant. */
    private const LONGEST_KEY = 4;

    /**
     * @param  iterable<Row>  $sample  rows of the source
     * @return list<string> empty when no leading columns tell the rows apart, or there are no rows
     */
    public function key(Columns $source, Columns $target, iterable $sample): array
    {
        $rows = [];
        foreach ($sample as $row) {
            $rows[] = $row->cells;
        }
        $shared = array_values(array_filter($source->names, static fn(string $name): bool => $target->has($name) && ! isset($source->repeated()[$name]) && ! isset($target->repeated()[$name])));
        $first = array_slice($shared, 0, self::LONGEST_KEY);
        for ($length = 1; $length <= count($first) && $rows !== []; $length++) {
            $names = array_slice($first, 0, $length);
            if ($this->isNearlyUnique($source->positionsOf($names), $rows)) {
                return $names;
            }
        }

        return [];
    }

    /**
     * @param  list<int>  $positions
     * @param  non-empty-list<list<string>>  $rows
     */
    private function isNearlyUnique(array $positions, array $rows): bool
    {
        $keys = [];
        foreach ($rows as $cells) {
            $keys[KeyTuple::of(array_map(static fn(int $position): string => $cells[$position], $positions))->bytes()] = true;
        }

        // Real registers repeat a few keys; one row in fifty may.
        return count($keys) >= 0.98 * count($rows);
    }
}
