<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\OpenFile;

/**
 * Brings rows of one group together without holding all rows: they are written aside by the group's hash, each part is worked on by
 * itself, and what comes out is merged into the order of the rows. A side that fits into memory is not written at all.
 */
final readonly class Grouping
{
    private const HELD_BYTES = 16 * 1024 * 1024;

    private const PARTS = 64;

    private const BUFFER_BYTES = 4 * 1024 * 1024;

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
                $this->put($parts, $key, $number++, $origin, $cells);

                continue;
            }
            $held[] = [$key, $number++, $origin, $cells];
            $bytes += 160;
            foreach ($cells as $cell) {
                $bytes += strlen($cell) + 40;
            }
            if ($bytes > self::HELD_BYTES) {
                $parts = $this->open();
                foreach ($held as [$heldKey, $heldNumber, $heldOrigin, $heldCells]) {
                    $this->put($parts, $heldKey, $heldNumber, $heldOrigin, $heldCells);
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
     * @param  list<array{string, int, int, list<string>}>  $rows  group, number, origin, cells
     * @return list<array{int, int, list<string>}>
     */
    private function worked(array $rows, \Closure $work): array
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

    /** @return object{buffers: array<int, string>, bytes: int, paths: list<string>} */
    private function open(): object
    {
        $name = bin2hex(random_bytes(6));

        return (object) ['buffers' => array_fill(0, self::PARTS, ''), 'bytes' => 0, 'paths' => array_map(fn(int $part): string => "{$this->folder}/group-{$name}-{$part}", range(0, self::PARTS - 1))];
    }

    /**
     * @param  object{buffers: array<int, string>, bytes: int, paths: list<string>}  $parts
     * @param  list<string>  $cells
     */
    private function put(object $parts, string $key, int $number, int $origin, array $cells): void
    {
        $row = pack('JJN', $number, $origin, strlen($key)).$key.implode(Batch::CELL_END, $cells);
        $written = pack('N', strlen($row)).$row;
        $parts->buffers[crc32($key) % self::PARTS] .= $written;
        $parts->bytes += strlen($written);
        if ($parts->bytes > self::BUFFER_BYTES) {
            $this->flush($parts);
        }
    }

    /** @param object{buffers: array<int, string>, bytes: int, paths: list<string>} $parts */
    private function flush(object $parts): void
    {
        foreach ($parts->buffers as $part => $bytes) {
            if ($bytes !== '') {
                OpenFile::append($parts->paths[$part], $bytes);
            }
        }
        $parts->buffers = array_fill(0, self::PARTS, '');
        $parts->bytes = 0;
    }

    /**
     * @param  object{buffers: array<int, string>, bytes: int, paths: list<string>}  $parts
     * @return \Generator<int, list<string>>
     */
    private function merged(object $parts, \Closure $work): \Generator
    {
        $this->flush($parts);
        $streams = [];
        foreach ($parts->paths as $path) {
            if (! is_file($path)) {
                continue;
            }
            $made = $this->worked(iterator_to_array($this->read($path, true), false), $work);
            usort($made, static fn(array $one, array $other): int => $one[0] <=> $other[0]);
            unlink($path);
            $bytes = '';
            foreach ($made as [$number, $origin, $cells]) {
                $row = pack('JJN', $number, $origin, 0).implode(Batch::CELL_END, $cells);
                $bytes .= pack('N', strlen($row)).$row;
            }
            OpenFile::append($path, $bytes);
            $streams[] = $this->read($path, false);
        }
        /** @var \SplPriorityQueue<int, int> $heap */
        $heap = new \SplPriorityQueue;
        foreach ($streams as $position => $stream) {
            $stream->valid() && $heap->insert($position, -$stream->current()[1]);
        }
        while (! $heap->isEmpty()) {
            $stream = $streams[$position = $heap->extract()];
            [, , $origin, $cells] = $stream->current();
            yield $origin => $cells;
            $stream->next();
            $stream->valid() && $heap->insert($position, -$stream->current()[1]);
        }
        foreach ($parts->paths as $path) {
            @unlink($path);
        }
    }

    /** @return \Generator<int, array{string, int, int, list<string>}> group, number, origin, cells */
    private function read(string $path, bool $hasKey): \Generator
    {
        $file = OpenFile::forReading($path);
        while (($head = $file->read(4)) !== '') {
            /** @var array{size: int} $sizes */
            $sizes = unpack('Nsize', $head);
            $row = $file->read($sizes['size']);
            /** @var array{number: int, origin: int, key: int} $fields */
            $fields = unpack('Jnumber/Jorigin/Nkey', $row);
            yield [$hasKey ? substr($row, 20, $fields['key']) : '', $fields['number'], $fields['origin'], explode(Batch::CELL_END, substr($row, 20 + $fields['key']))];
        }
    }
}
