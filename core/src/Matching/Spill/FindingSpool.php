<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** Findings written aside in the order of their lines, one stream for each task of work. */
final class FindingSpool
{
    private const BUFFER_BYTES = 131_072;

    /** Made when there is something to write: most partitions of two sides that agree find nothing. */
    private ?AtomicFile $file = null;

    private string $buffer = '';

    private int $written = 0;

    public function __construct(private readonly string $path) {}

    public function add(FindingEntry $entry): void
    {
        $bytes = $entry->bytes();
        $this->buffer .= pack('N', strlen($bytes)).$bytes;
        $this->written++;
        if (strlen($this->buffer) > self::BUFFER_BYTES) {
            $this->flush();
        }
    }

    /** @return bool whether there is anything to read; an empty stream leaves no file */
    public function finish(): bool
    {
        if ($this->written > 0) {
            $this->flush();
            $this->file?->finish();
        }

        return $this->written > 0;
    }

    /**
     * All streams merged into the order of their lines (a heap of their heads).
     *
     * @param  list<array{path: string, baseLine: int}>  $streams  with the lines that come before each
     * @return \Generator<int, FindingEntry>
     */
    public static function merged(array $streams): \Generator
    {
        /** @var \SplPriorityQueue<int, int> $heap of streams, the one with the lowest line first */
        $heap = new \SplPriorityQueue;
        $readers = [];
        foreach ($streams as $number => ['path' => $path, 'baseLine' => $baseLine]) {
            $readers[$number] = self::read($path);
            if ($readers[$number]->valid()) {
                $heap->insert($number, -$baseLine - $readers[$number]->current()->line);
            }
        }
        while (! $heap->isEmpty()) {
            /** @var int $number */
            $number = $heap->extract();
            $reader = $readers[$number];
            yield $streams[$number]['baseLine'] => $reader->current();
            $reader->next();
            if ($reader->valid()) {
                $heap->insert($number, -$streams[$number]['baseLine'] - $reader->current()->line);
            }
        }
    }

    /** @return \Generator<int, FindingEntry> */
    private static function read(string $path): \Generator
    {
        $file = WorkspaceReader::forReading($path);
        while (($head = $file->read(4)) !== '') {
            /** @var array{size: int} $sizes */
            $sizes = unpack('Nsize', $head);
            yield FindingEntry::fromBytes($file->read($sizes['size']));
        }
    }

    private function flush(): void
    {
        $this->file ??= new AtomicFile($this->path);
        $this->file->write($this->buffer);
        $this->buffer = '';
    }
}
