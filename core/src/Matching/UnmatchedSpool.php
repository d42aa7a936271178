<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;

/** Findings written aside, each file in the order of its side, and read back merged into one order. */
final class UnmatchedSpool
{
    private const BUFFER_BYTES = 131_072;

    private const CLASSES = [Unmatched::class, RowRecord::class, CellFinding::class, RefusedRecord::class, RowClass::class, CellClass::class, Side::class, RefusalReason::class];

    /** @var array<string, string> file name => bytes not written yet */
    private array $buffers = [];

    /** @var array<string, true> */
    private array $written = [];

    public function __construct(private readonly string $folder) {}

    /** @param string $stream a name for findings that come in the order of their number */
    public function add(string $stream, Unmatched $unmatched): void
    {
        $bytes = serialize($unmatched);
        $this->buffers[$stream] = ($this->buffers[$stream] ?? '').pack('N', strlen($bytes)).$bytes;
        if (strlen($this->buffers[$stream]) > self::BUFFER_BYTES) {
            $this->flush($stream);
        }
    }

    public function flush(string $stream): void
    {
        if (($this->buffers[$stream] ?? '') !== '') {
            OpenFile::append($this->path($stream), $this->buffers[$stream]);
            $this->written[$stream] = true;
        }
        unset($this->buffers[$stream]);
    }

    /**
     * The findings of all streams whose name begins with $prefix, in the order of their numbers.
     *
     * @return \Generator<int, Unmatched>
     */
    public function merged(string $prefix): \Generator
    {
        /** @var \SplPriorityQueue<int, string> $heap of stream names, the one with the lowest number first */
        $heap = new \SplPriorityQueue;
        $streams = [];
        foreach (array_keys($this->written + $this->buffers) as $stream) {
            if (str_starts_with($stream, $prefix)) {
                $this->flush($stream);
                $streams[$stream] = $this->stream($stream);
                $heap->insert($stream, -$streams[$stream]->current()->number);
            }
        }
        while (! $heap->isEmpty()) {
            /** @var string $stream */
            $stream = $heap->extract();
            $findings = $streams[$stream];
            yield $findings->current();
            $findings->next();
            if ($findings->valid()) {
                $heap->insert($stream, -$findings->current()->number);
            }
        }
    }

    /** @return \Generator<int, Unmatched> */
    private function stream(string $stream): \Generator
    {
        $file = OpenFile::forReading($this->path($stream));
        while (($head = $file->read(4)) !== '') {
            /** @var array{size: int} $sizes */
            $sizes = unpack('Nsize', $head);
            $unmatched = unserialize($file->read($sizes['size']), ['allowed_classes' => self::CLASSES]);
            yield $unmatched instanceof Unmatched ? $unmatched : throw WorkspaceFailure::reading($stream);
        }
    }

    private function path(string $stream): string
    {
        return "{$this->folder}/{$stream}";
    }
}
