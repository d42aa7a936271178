<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Intake\Batch;

/**
 * What one column more or less would give on a side, told from its first rows: how many rows would stand beyond the first of their group,
 * and how many would do so by chance alone, if the values of the columns had nothing to do with each other. As many rows as drawn from as
 * many combinations leave so many beyond the first of each (the occupancy problem, Feller 1968, IV.2).
 */
final class NeighbouringLooks
{
    /** Rows of a side that are looked at: enough to choose columns by. */
    public const ROWS = 50_000;

    private int $rows = 0;

    /** @var array<array-key, array<string, true>> by look, -1 for the columns themselves: hashes of what is shared */
    private array $seen = [];

    /** @var array<int, array<string, true>> by place among the columns that are shared: values, as far as they are few */
    private array $values = [];

    /** @param list<int> $more places in a row of columns that could be shared too */
    public function __construct(private readonly LookedSide $side, private readonly array $more) {}

    /** @param list<string> $cells */
    public function see(array $cells): void
    {
        if ($this->rows === self::ROWS) {
            return;
        }
        $shared = $this->side->shared($cells);
        if (trim($shared, Batch::CELL_END) === '') {
            return;
        }
        $this->rows++;
        $parts = explode(Batch::CELL_END, $shared);
        $this->seen[-1][hash('xxh128', $shared, true)] = true;
        foreach ($parts as $place => $part) {
            $this->values[$place][$part] = true;
            if (count($parts) > 1) {
                $rest = $parts;
                $rest[$place] = '';
                $this->seen["less {$place}"][hash('xxh128', implode(Batch::CELL_END, $rest), true)] = true;
            }
        }
        foreach ($this->more as $number => $place) {
            $this->seen["more {$number}"][hash('xxh128', $shared.Batch::CELL_END.$cells[$place], true)] = true;
        }
    }

    /**
     * @return array{rows: int, now: int, chance: int, less: list<int>, more: list<int>} rows beyond the first of a group: now, by chance,
     *     without each of the columns, and with each of the others
     */
    public function found(): array
    {
        $beyond = fn(int|string $look): int => $this->rows - count($this->seen[$look] ?? []);
        $columns = count($this->side->places);

        return [
            'rows' => $this->rows,
            'now' => $this->rows === 0 ? 0 : $beyond(-1),
            'chance' => $this->chance(),
            'less' =>
                $columns < 2 || $this->rows === 0
                    ? []
                    : array_map(static fn(int $place): int => $beyond("less {$place}"), range(0, $columns - 1)),
            'more' => array_map(fn(int $number): int => $this->rows === 0 ? 0 : $beyond("more {$number}"), array_keys($this->more)),
        ];
    }

    private function chance(): int
    {
        $combinations = 1.0;
        foreach ($this->values as $values) {
            // A column that tells most rows apart by itself was not filled by chance.
            if (2 * count($values) > $this->rows) {
                return 0;
            }
            $combinations *= count($values);
        }
        if ($this->rows === 0 || $combinations <= 1.0) {
            return max(0, $this->rows - 1);
        }

        return (int) round($this->rows + $combinations * expm1($this->rows * log1p(-1 / $combinations)));
    }
}
