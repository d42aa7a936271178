<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Scan;

/**
 * Keyed rows written aside by partition, so that memory does not grow with the delivery. Equal keys always meet in the same
 * partition, and within one the rows keep their order.
 *
 * One file holds chunks of all partitions, with their places in an index beside it. A chunk holds keys, bodies, rests and
 * lines apart: each is read back with one explode.
 */
final class SpillWriter
{
    /** Five numbers of eight bytes. */
    public const CHUNK = 'J5';

    public const CHUNK_BYTES = 40;

    private readonly AtomicFile $file;

    /**
     * By partition, each entry closed by Batch::ROW_END. Scan appends to these directly: a call for each row would double its cost.
     *
     * @var array<int, string>
     */
    public array $keys;

    /** @var array<int, string> */
    public array $bodies;

    /** @var array<int, string> */
    public array $rests;

    /** @var array<int, list<int>> */
    public array $lines;

    private int $buffered = 0;

    private int $written = 0;

    /**
     * @var array<int, string> by partition, packed for each chunk: offset, rows, bytes of keys, bodies and rests; as lists they would
     *     outgrow the rows of a partition
     */
    private array $index = [];

    /** @param int $bufferBytes is written when this much has come together */
    public function __construct(private readonly string $path, private readonly int $partitions, private readonly int $bufferBytes)
    {
        $this->file = new AtomicFile($path);
        $this->clear();
    }

    /** Told after each batch how many bytes came on top; writes when enough has come together. */
    public function grownBy(int $bytes): void
    {
        if (($this->buffered += $bytes) > $this->bufferBytes) {
            $this->flush();
        }
    }

    public function finish(): void
    {
        $this->flush();
        AtomicFile::put($this->path.'.index', serialize($this->index));
        $this->file->finish();
    }

    private function flush(): void
    {
        for ($partition = 0; $partition < $this->partitions; $partition++) {
            if ($this->lines[$partition] === []) {
                continue;
            }
            $chunk = $this->keys[$partition].$this->bodies[$partition].$this->rests[$partition].pack('J*', ...$this->lines[$partition]);
            $this->file->write($chunk);
            $this->index[$partition] =
                ($this->index[$partition] ?? '').
                pack(
                    self::CHUNK,
                    $this->written,
                    count($this->lines[$partition]),
                    strlen($this->keys[$partition]),
                    strlen($this->bodies[$partition]),
                    strlen($this->rests[$partition]),
                );
            $this->written += strlen($chunk);
        }
        $this->clear();
    }

    private function clear(): void
    {
        $this->keys = $this->bodies = $this->rests = array_fill(0, $this->partitions, '');
        $this->lines = array_fill(0, $this->partitions, []);
        $this->buffered = 0;
    }
}
