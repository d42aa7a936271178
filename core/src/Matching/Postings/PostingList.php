<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Postings;

/** The rows of one pattern as a task of matching finds them: noted one by one, packed when there are many. */
final class PostingList
{
    private const UNPACKED = 65_536;

    /** @var list<int> */
    private array $lines = [];

    /** @var array<int, string> upper bits => lower bits, packed as they came */
    private array $packed = [];

    public function add(int $line): void
    {
        $this->lines[] = $line;
        if (count($this->lines) >= self::UNPACKED) {
            $this->pack();
        }
    }

    /** @param list<int> $lines */
    public function addAll(array $lines): void
    {
        array_push($this->lines, ...$lines);
        if (count($this->lines) >= self::UNPACKED) {
            $this->pack();
        }
    }

    /** @return array<int, string> upper bits => lower bits, packed as they came */
    public function containers(): array
    {
        $this->pack();

        return $this->packed;
    }

    private function pack(): void
    {
        $lows = [];
        foreach ($this->lines as $line) {
            $lows[$line >> PostingBuffer::LOW_BITS][] = $line & 0xFFFF;
        }
        foreach ($lows as $high => $ofContainer) {
            $this->packed[$high] = ($this->packed[$high] ?? '').pack('v*', ...$ofContainer);
        }
        $this->lines = [];
    }
}
