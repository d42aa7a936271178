<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

use NineTally\Core\Intake\Batch;

/**
 * Brings rows of one group together without holding all rows: they are written aside by the group's hash, each part is worked on by
 * itself, and what comes out is merged into the order of the rows. A side that fits into memory is not written at all.
 */
final readonly class Grouping
{
    private const HELD_BYTES = 16 * 1024 * 1024;

    public function __construct(private string $folder) {}

    /**
     * @param  iterable<int, list<string>>  $rows  origin => cells
     * @param  list<int>  $by  places of the cells that make the group
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work  takes a group as [number of the row, origin, cells] in their order, and gives rows back with the number that places them
     * @return \Generator<int, list<string>>
     */
    public function run(iterable $rows, array $by, \Closure $work): \Generator
    {
        $held = [];
        $bytes = $number = 0;
        $parts = null;
        foreach ($rows as $origin => $cells) {
            $key = self::key($cells, $by);
            if ($parts !== null) {
                $parts->put($key, $number++, $origin, $cells);

                continue;
            }
            $held[] = [$key, $number++, $origin, $cells];
            $bytes += 160;
            foreach ($cells as $cell) {
                $bytes += strlen($cell) + 40;
            }
            if ($bytes > self::HELD_BYTES) {
                $parts = new GroupParts($this->folder);
                foreach ($held as [$heldKey, $heldNumber, $heldOrigin, $heldCells]) {
                    $parts->put($heldKey, $heldNumber, $heldOrigin, $heldCells);
                }
                $held = [];
            }
        }
        if ($parts === null) {
            yield from $this->inOrder($this->worked($held, $work));

            return;
        }
        yield from $this->merged($parts, $work);
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
     * @param  iterable<array{string, int, int, list<string>}>  $rows  group, number, origin, cells
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work
     * @return list<array{int, int, list<string>}>
     */
    private function worked(iterable $rows, \Closure $work): array
    {
        $groups = [];
        foreach ($rows as [$key, $number, $origin, $cells]) {
            $groups[$key][] = [$number, $origin, $cells];
        }
        $made = [];
        foreach ($groups as $group) {
            foreach ($work($group) as $row) {
                $made[] = $row;
            }
        }

        return $made;
    }

    /**
     * @param  list<array{int, int, list<string>}>  $rows
     * @return \Generator<int, list<string>>
     */
    private function inOrder(array $rows): \Generator
    {
        usort($rows, static fn(array $one, array $other): int => $one[0] <=> $other[0]);
        foreach ($rows as [, $origin, $cells]) {
            yield $origin => $cells;
        }
    }

    /**
     * @param  \Closure(list<array{int, int, list<string>}>): iterable<array{int, int, list<string>}>  $work
     * @return \Generator<int, list<string>>
     */
    private function merged(GroupParts $parts, \Closure $work): \Generator
    {
        $streams = [];
        foreach ($parts->paths() as $path) {
            $made = $this->worked($parts->read($path), $work);
            usort($made, static fn(array $one, array $other): int => $one[0] <=> $other[0]);
            $streams[] = $parts->replaced($path, $made);
        }
        /** @var \SplPriorityQueue<int, int> $heap of streams, the one with the lowest number first */
        $heap = new \SplPriorityQueue;
        foreach ($streams as $position => $stream) {
            if ($stream->valid()) {
                $heap->insert($position, -$stream->current()[1]);
            }
        }
        while (! $heap->isEmpty()) {
            /** @var int $position */
            $position = $heap->extract();
            $stream = $streams[$position];
            [, , $origin, $cells] = $stream->current();
            yield $origin => $cells;
            $stream->next();
            if ($stream->valid()) {
                $heap->insert($position, -$stream->current()[1]);
            }
        }
        $parts->remove();
    }
}
