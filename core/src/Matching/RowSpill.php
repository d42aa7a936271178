<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Row;

/**
 * The keyed rows of one side, written aside by partition so that memory does not grow with the delivery.
 *
 * Equal keys always meet in the same partition, and within one the rows keep the order of the delivery.
 */
final class RowSpill
{
    /** Many small writes would cost more than the rows: each partition is buffered up to this size. */
    private const BUFFER_BYTES = 32_768;

    private const HEAD = 'Jnumber/Nline/Nkey/Ncells';

    private const HEAD_BYTES = 20;

    /** @var array<int, string> */
    private array $buffers;

    public function __construct(private readonly string $folder, public readonly int $partitions)
    {
        $this->buffers = array_fill(0, $partitions, '');
    }

    public function add(string $key, Row $row): void
    {
        $partition = crc32($key) % $this->partitions;
        $cells = implode(KeyTuple::SEPARATOR, $row->cells);
        $this->buffers[$partition] .= pack('JNNN', $row->number, $row->line, strlen($key), strlen($cells)).$key.$cells;
        if (strlen($this->buffers[$partition]) > self::BUFFER_BYTES) {
            $this->flush($partition);
        }
    }

    public function finish(): void
    {
        foreach (array_keys($this->buffers) as $partition) {
            $this->flush($partition);
        }
    }

    /**
     * @return \Generator<int, array{number: int, line: int, key: string, cells: string}> key and cells joined with KeyTuple::SEPARATOR
     */
    public function rows(int $partition): \Generator
    {
        $path = $this->path($partition);
        if (! is_file($path)) {
            return;
        }
        $file = OpenFile::forReading($path);
        while (($head = $file->read(self::HEAD_BYTES)) !== '') {
            /** @var array{number: int, line: int, key: int, cells: int} $sizes */
            $sizes = unpack(self::HEAD, $head);
            yield ['number' => $sizes['number'], 'line' => $sizes['line'], 'key' => $file->read($sizes['key']), 'cells' => $file->read($sizes['cells'])];
        }
    }

    private function flush(int $partition): void
    {
        if ($this->buffers[$partition] !== '') {
            OpenFile::append($this->path($partition), $this->buffers[$partition]);
            $this->buffers[$partition] = '';
        }
    }

    private function path(int $partition): string
    {
        return sprintf('%s/rows-%03d', $this->folder, $partition);
    }
}
