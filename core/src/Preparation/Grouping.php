<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\RowSets\GroupParts;

/**
 * Brings rows of one group together without holding all rows: they are written aside by the group's hash, each part is worked on by
 * itself, and what comes out is merged into the order of the rows. A side that fits into memory is not written at all. One group at a
 * time is taken apart into cells.
 */
final readonly class Grouping
{
    private const HELD_BYTES = 16 * 1024 * 1024;

    /** What PHP needs for a held row beside its bytes. */
    private const ROW_BYTES = 120;

    public function __construct(private string $folder) {}

    /**
     * @param  iterable<int, list<string>>  $rows  packed place => cells
     * @param  list<int>  $by  places of the cells that make the group
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work  takes a group as
     *     [number of the row, packed place, cells] in their order, and gives rows back, each with the number of a row of the group, whose
     *     place it takes
     * @return \Generator<int, list<string>>
     */
    public function run(iterable $rows, array $by, \Closure $work): \Generator
    {
        $held = [];
        $bytes = $number = 0;
        $parts = null;
        foreach ($rows as $packedPlace => $cells) {
            $key = self::key($cells, $by);
            $row = pack('JJ', $number++, $packedPlace).implode(Batch::CELL_END, $cells);
            if ($parts !== null) {
                $parts->put($key, $row);

                continue;
            }
            $held[$key][] = $row;
            $bytes += strlen($row) + self::ROW_BYTES;
            if ($bytes > self::HELD_BYTES) {
                $parts = new GroupParts($this->folder);
                foreach ($held as $heldKey => $ofKey) {
                    foreach ($ofKey as $heldRow) {
                        $parts->put((string) $heldKey, $heldRow);
                    }
                }
                $held = [];
            }
        }
        if ($parts !== null) {
            yield from $this->merged($parts, $work);

            return;
        }
        foreach ($this->worked($held, $work) as $row) {
            [, $packedPlace, $cells] = self::unpacked($row);
            yield $packedPlace => $cells;
        }
    }

    /**
     * @param  list<string>  $cells
     * @param  list<int>  $by
     */
    private static function key(array $cells, array $by): string
    {
        $key = [];
        foreach ($by as $place) {
            $key[] = $cells[$place];
        }

        return implode(Batch::CELL_END, $key);
    }

    /**
     * @param  array<string, list<string>>  $groups  packed rows
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work
     * @return array<int, string> number => packed row, in the order of the numbers
     */
    private function worked(array $groups, \Closure $work): array
    {
        $made = [];
        foreach (array_keys($groups) as $key) {
            foreach ($work(array_map(self::unpacked(...), $groups[$key])) as [$number, $packedPlace, $cells]) {
                $made[$number] = pack('JJ', $number, $packedPlace).implode(Batch::CELL_END, $cells);
            }
            unset($groups[$key]);
        }
        ksort($made);

        return $made;
    }

    /** @return array{int, int, list<string>} number, packed place, cells */
    private static function unpacked(string $row): array
    {
        /** @var array{number: int, packed: int} $fields */
        $fields = unpack('Jnumber/Jpacked', $row);

        return [$fields['number'], $fields['packed'], explode(Batch::CELL_END, substr($row, 16))];
    }

    /**
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work
     * @return \Generator<int, list<string>>
     */
    private function merged(GroupParts $parts, \Closure $work): \Generator
    {
        $streams = [];
        foreach ($parts->paths() as $path) {
            $groups = [];
            foreach ($parts->read($path) as [$key, $row]) {
                $groups[$key][] = $row;
            }
            $streams[] = $parts->replaced($path, $this->worked($groups, $work));
        }
        /** @var \SplPriorityQueue<int, int> $heap of streams, the one with the lowest number first */
        $heap = new \SplPriorityQueue;
        $heads = [];
        $next = static function (int $position) use ($streams, $heap, &$heads): void {
            if ($streams[$position]->valid()) {
                $heads[$position] = self::unpacked($streams[$position]->current()[1]);
                $heap->insert($position, -$heads[$position][0]);
                $streams[$position]->next();
            }
        };
        array_map($next, array_keys($streams));
        while (! $heap->isEmpty()) {
            /** @var int $position */
            $position = $heap->extract();
            [, $packedPlace, $cells] = $heads[$position];
            yield $packedPlace => $cells;
            $next($position);
        }
        $parts->remove();
    }
}
