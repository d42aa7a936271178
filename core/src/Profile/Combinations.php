<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\RowSets\GroupParts;

/**
 * Counts the distinct combinations of some columns, and keeps those that stand most often. Memory is bounded: rows are counted part by
 * part.
 */
final class Combinations
{
    private const KEPT = 200;

    private readonly GroupParts $parts;

    private int $rows = 0;

    /** @param list<int> $places of the cells that count */
    public function __construct(string $folder, private readonly array $places)
    {
        $this->parts = new GroupParts($folder);
    }

    /** @param list<string> $cells */
    public function see(array $cells): void
    {
        $this->parts->put(implode(Batch::CELL_END, array_map(static fn(int $place): string => $cells[$place], $this->places)), '');
        $this->rows++;
    }

    /**
     * @return array{rows: int, distinct: int, repeating: int, repeatingRows: int, most: list<array{cells: list<string>, count: int}>} how
     * many rows and combinations there are, how many combinations stand more than once and in how many rows; those that stand most often,
     * then by their cells
     */
    public function count(): array
    {
        $distinct = $repeating = $repeatingRows = 0;
        $most = [];
        for ($part = 0; $part < GroupParts::PARTS; $part++) {
            $counts = [];
            foreach ($this->parts->part($part) as [$combination]) {
                $counts[$combination] = ($counts[$combination] ?? 0) + 1;
            }
            $distinct += count($counts);
            $several = array_filter($counts, static fn(int $count): bool => $count > 1);
            $repeating += count($several);
            $repeatingRows += array_sum($several);
            $most += $counts;
            uksort(
                $most,
                static fn(int|string $one, int|string $other): int => $most[$other] <=> $most[$one] ?:
                strcmp((string) $one, (string) $other),
            );
            $most = array_slice($most, 0, self::KEPT, true);
        }
        $this->parts->remove();

        return [
            'rows' => $this->rows,
            'distinct' => $distinct,
            'repeating' => $repeating,
            'repeatingRows' => $repeatingRows,
            'most' => array_map(
                static fn(int|string $combination, int $count): array => [
                    'cells' => explode(Batch::CELL_END, (string) $combination),
                    'count' => $count,
                ],
                array_keys($most),
                $most,
            ),
        ];
    }
}
