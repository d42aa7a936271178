<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\OpenFile;

/** Rows written aside by the hash of their group. */
final class GroupParts
{
    private const PARTS = 64;

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

    /** @param list<string> $cells */
    public function put(string $group, int $number, int $origin, array $cells): void
    {
        $row = self::bytesOf($group, $number, $origin, $cells);
        $this->buffers[crc32($group) % self::PARTS] .= $row;
        $this->bytes += strlen($row);
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

    /** @return \Generator<int, array{string, int, int, list<string>}> group, number, origin, cells */
    public function read(string $path): \Generator
    {
        $file = OpenFile::forReading($path);
        while (($head = $file->read(4)) !== '') {
            /** @var array{size: int} $sizes */
            $sizes = unpack('Nsize', $head);
            $row = $file->read($sizes['size']);
            /** @var array{number: int, origin: int, group: int} $fields */
            $fields = unpack('Jnumber/Jorigin/Ngroup', $row);
            yield [substr($row, 20, $fields['group']), $fields['number'], $fields['origin'], explode(Batch::CELL_END, substr($row, 20 + $fields['group']))];
        }
    }

    /**
     * Puts what was made of a part in its place.
     *
     * @param  list<array{int, int, list<string>}>  $rows
     * @return \Generator<int, array{string, int, int, list<string>}>
     */
    public function replaced(string $path, array $rows): \Generator
    {
        unlink($path);
        $bytes = '';
        foreach ($rows as [$number, $origin, $cells]) {
            $bytes .= self::bytesOf('', $number, $origin, $cells);
        }
        OpenFile::append($path, $bytes);

        return $this->read($path);
    }

    public function remove(): void
    {
        array_map(unlink(...), $this->paths());
    }

    private function path(int $part): string
    {
        return "{$this->folder}/group-{$this->name}-{$part}";
    }

    private function flush(): void
    {
        foreach ($this->buffers as $part => $bytes) {
            if ($bytes !== '') {
                OpenFile::append($this->path($part), $bytes);
            }
        }
        $this->buffers = array_fill(0, self::PARTS, '');
        $this->bytes = 0;
    }

    /** @param list<string> $cells */
    private static function bytesOf(string $group, int $number, int $origin, array $cells): string
    {
        $row = pack('JJN', $number, $origin, strlen($group)).$group.implode(Batch::CELL_END, $cells);

        return pack('N', strlen($row)).$row;
    }
}
