<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\RowSets;

use NineTally\Core\Matching\Spill\WorkspaceReader;

/** Rows put aside by the hash of their group, in files once they are many. */
final class GroupParts
{
    public const PARTS = 64;

    private const BUFFER_BYTES = 4 * 1024 * 1024;

    private readonly string $name;

    /** @var array<int, string> by part */
    private array $buffers;

    private int $bytes = 0;

    public function __construct(private readonly string $folder)
    {
        $this->name = bin2hex(random_bytes(6));
        $this->buffers = array_fill(0, self::PARTS, '');
    }

    /** @param string $row packed */
    public function put(string $group, string $row): void
    {
        $written = self::bytesOf($group, $row);
        $this->buffers[crc32($group) % self::PARTS] .= $written;
        $this->bytes += strlen($written);
        if ($this->bytes > self::BUFFER_BYTES) {
            $this->flush();
        }
    }

    /** @return list<string> files of the parts that have rows */
    public function paths(): array
    {
        $this->flush();

        return array_values(array_filter(array_map($this->path(...), range(0, self::PARTS - 1)), is_file(...)));
    }

    /**
     * What was put into one part, whether it has been written to a file or not. A group is in the same part wherever it is put.
     *
     * @param  int  $part  from 0 to PARTS - 1
     * @return \Generator<int, array{string, string}> group and packed row
     */
    public function part(int $part): \Generator
    {
        if (is_file($this->path($part))) {
            yield from $this->read($this->path($part));
        }
        for ($at = 0; $at < strlen($this->buffers[$part]);) {
            /** @var array{group: int, row: int} $sizes */
            $sizes = unpack('Ngroup/Nrow', $this->buffers[$part], $at);
            yield [
                substr($this->buffers[$part], $at + 8, $sizes['group']),
                substr($this->buffers[$part], $at + 8 + $sizes['group'], $sizes['row']),
            ];
            $at += 8 + $sizes['group'] + $sizes['row'];
        }
    }

    /** @return \Generator<int, array{string, string}> group and packed row */
    public function read(string $path): \Generator
    {
        $file = WorkspaceReader::forReading($path);
        while (($head = $file->read(8)) !== '') {
            /** @var array{group: int, row: int} $sizes */
            $sizes = unpack('Ngroup/Nrow', $head);
            $bytes = $file->read($sizes['group'] + $sizes['row']);
            yield [substr($bytes, 0, $sizes['group']), substr($bytes, $sizes['group'])];
        }
    }

    /**
     * Puts what was made of a part in its place.
     *
     * @param  array<int, string>  $rows  packed
     * @return \Generator<int, array{string, string}>
     */
    public function replaced(string $path, array $rows): \Generator
    {
        unlink($path);
        WorkspaceReader::append($path, implode('', array_map(static fn(string $row): string => self::bytesOf('', $row), $rows)));

        return $this->read($path);
    }

    public function remove(): void
    {
        array_map(unlink(...), $this->paths());
        $this->buffers = array_fill(0, self::PARTS, '');
    }

    private function path(int $part): string
    {
        return "{$this->folder}/group-{$this->name}-{$part}";
    }

    private function flush(): void
    {
        foreach ($this->buffers as $part => $bytes) {
            if ($bytes !== '') {
                WorkspaceReader::append($this->path($part), $bytes);
            }
        }
        $this->buffers = array_fill(0, self::PARTS, '');
        $this->bytes = 0;
    }

    private static function bytesOf(string $group, string $row): string
    {
        return pack('NN', strlen($group), strlen($row)).$group.$row;
    }
}
