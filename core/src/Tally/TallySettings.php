<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** How much a run may take at once. None of it changes what it finds. */
final readonly class TallySettings
{
    public const MEMORY = 256 * 1024 * 1024;

    /**
     * Rows of a partition meet each other at random: as much as stays in a processor's cache takes half the time of four times as much. In
     * memory it is about three times as many bytes, on each side.
     */
    private const PARTITION_BYTES = 1024 * 1024;

    /** What is written at once of a partition; less makes too many chunks. */
    private const CHUNK_BYTES = 16 * 1024;

    private const MOST_PARTITIONS = 256;

    /**
     * @param  int  $memory  bytes that a process should stay below
     * @param  int|null  $partitions  a power of two; null: by the size of the source
     * @param  bool  $triesSideBySide  both sides are read at once where they come in the same order
     * @param  int  $rangeBytes  about how much of a file one task of reading takes
     */
    public function __construct(
        public int $memory = self::MEMORY,
        public ?int $partitions = null,
        public int $rangeBytes = 32 * 1024 * 1024,
        public bool $listsForgiven = false,
        public bool $triesSideBySide = true,
    ) {}

    /** @param int $bytes of the larger side */
    public function partitions(int $bytes): int
    {
        if ($this->partitions !== null) {
            return $this->partitions;
        }
        $wanted = intdiv($bytes, min(self::PARTITION_BYTES, max(262_144, intdiv($this->memory, 16)))) + 1;
        $partitions = 1;
        while ($partitions < $wanted && $partitions < self::MOST_PARTITIONS) {
            $partitions *= 2;
        }

        return $partitions;
    }

    /** From this size on a partition is looked at before it is held. */
    public function largePartition(): int
    {
        return max(8 * 1024 * 1024, intdiv($this->memory, 4));
    }

    /**
     * What reading holds before it writes. It goes from partition to partition with each row, so it must stay in a processor's cache: 8 MB
     * take three times as long as 1 MB.
     */
    public function bufferBytes(int $partitions): int
    {
        return min(max(2 * 1024 * 1024, self::CHUNK_BYTES * $partitions), intdiv($this->memory, 8));
    }
}
