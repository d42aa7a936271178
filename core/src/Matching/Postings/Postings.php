<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Postings;

use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;

/**
 * The rows in which each pattern of forgiven cells stands, of the whole tally, in the order of the source: listed, entered anywhere and
 * counted exactly without a row in a database.
 *
 * A list is a row of containers: upper bits (4 bytes, big-endian), postings less one (2 bytes, big-endian), then the lower 16 bits of each
 * row's number (2 bytes, little-endian), ascending.
 *
 * @phpstan-type StoredList array{pattern: string, cells: int, offset: int, bytes: int}
 */
final readonly class Postings
{
    private const HEAD_BYTES = 6;

    /** From so many rows of a container on they are not sorted one against the other. */
    private const MANY = 4_096;

    /** @param array<string, StoredList> $lists by pattern */
    private function __construct(private string $path, public array $lists) {}

    /** @param array<string, StoredList> $lists */
    public static function at(string $path, array $lists): self
    {
        return new self($path, $lists);
    }

    /**
     * @param  list<array{path: string, index: array<string, array<int, array{int, int}>>}>  $tasks  as PostingBuffer left them
     */
    public static function merged(array $tasks, string $path): self
    {
        $where = [];
        foreach ($tasks as $number => ['index' => $index]) {
            foreach ($index as $pattern => $containers) {
                foreach ($containers as $high => $stretch) {
                    $where[$pattern][$high][] = [$number, ...$stretch];
                }
            }
        }
        ksort($where, SORT_STRING);
        $inputs = [];
        $file = new AtomicFile($path);
        $lists = [];
        $offset = 0;
        foreach ($where as $pattern => $containers) {
            ksort($containers);
            [$begin, $cells] = [$offset, 0];
            foreach ($containers as $high => $stretches) {
                $lows = '';
                foreach ($stretches as [$number, $from, $bytes]) {
                    $input = $inputs[$number] ??=
                        fopen($tasks[$number]['path'], 'rb') ?: throw WorkspaceFailure::reading($tasks[$number]['path']);
                    fseek($input, $from);
                    $lows .= (string) stream_get_contents($input, $bytes);
                }
                $sorted = self::ascending($lows);
                $container = pack('Nn', $high, count($sorted) - 1).pack('v*', ...$sorted);
                $file->write($container);
                $offset += strlen($container);
                $cells += count($sorted);
            }
            $lists[$pattern] = ['pattern' => (string) $pattern, 'cells' => $cells, 'offset' => $begin, 'bytes' => $offset - $begin];
        }
        $file->finish();
        array_map(fclose(...), $inputs);

        return new self($path, $lists);
    }

    /**
     * Each row stands in a list once.
     *
     * @return list<int>
     */
    private static function ascending(string $lows): array
    {
        /** @var array<int, int> $rows */
        $rows = unpack('v*', $lows) ?: [];
        if (count($rows) > self::MANY) {
            // What is common to them and to all numbers in order is in order: a third of the time of sorting.
            /** @var list<int>|null $all */
            static $all = null;
            $all ??= range(0, 0xFFFF);

            return array_values(array_intersect_key($all, array_flip($rows)));
        }
        sort($rows);

        return $rows;
    }

    public function count(string $pattern): int
    {
        return $this->lists[$pattern]['cells'] ?? 0;
    }

    /**
     * @param  int  $from  counted from 1
     * @return list<int> numbers of rows, in the order of the source
     */
    public function rows(string $pattern, int $from, int $limit): array
    {
        $list = $this->lists[$pattern] ?? null;
        if ($list === null || ($file = @fopen($this->path, 'rb')) === false) {
            return [];
        }
        $rows = [];
        $skip = $from - 1;
        for (
            $offset = $list['offset'];
            $offset < $list['offset'] + $list['bytes'] && count($rows) < $limit;
            $offset += self::HEAD_BYTES + 2 * $count
        ) {
            fseek($file, $offset);
            /** @var array{high: int, more: int} $head */
            $head = unpack('Nhigh/nmore', (string) fread($file, self::HEAD_BYTES));
            $count = $head['more'] + 1;
            if ($skip < $count) {
                fseek($file, $offset + self::HEAD_BYTES + 2 * $skip);
                /** @var array<int, int> $lows */
                $lows = unpack('v*', (string) fread($file, max(1, 2 * min($count - $skip, $limit - count($rows))))) ?: [];
                foreach ($lows as $low) {
                    $rows[] = $head['high'] << PostingBuffer::LOW_BITS | $low;
                }
            }
            $skip = max(0, $skip - $count);
        }
        fclose($file);

        return $rows;
    }
}
