<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** Findings written aside in the order of their lines, one stream for each task of work. */
final class FindingSpool
{
    /** Each entry stands behind its length. */
    public const HEAD_BYTES = 4;

    private const BUFFER_BYTES = 131_072;

    /** Of all streams together while they are merged, and of one of them. */
    private const MERGED_BYTES = 4_194_304;

    private const BLOCK_BYTES = 65_536;

    private const LEAST_BLOCK_BYTES = 8_192;

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
     * All streams merged into the order of their lines. Of each a block is held, and what lies before the place up to which all have been
     * read is sorted at once: a heap of their heads costs as much for each entry as all the rest of reading it.
     *
     * @param  list<array{path: string, baseLine: int}>  $streams  with the lines that come before each
     * @param  int  $from  line of the first that is wanted
     * @param  int  $to  line of the first that is not wanted any more
     * @return \Generator<int, FindingEntry> by the lines that come before those of its stream
     *
     * @throws WorkspaceFailure
     */
    public static function merged(array $streams, int $from = 0, int $to = PHP_INT_MAX): \Generator
    {
        $blockBytes = max(self::LEAST_BLOCK_BYTES, min(self::BLOCK_BYTES, intdiv(self::MERGED_BYTES, max(1, count($streams)))));
        $runs = array_map(
            static fn(array $stream) => new FindingRun($stream['path'], $stream['baseLine'], $blockBytes, $from, $to),
            $streams,
        );
        while ($runs !== []) {
            $upTo = min(array_map(static fn(FindingRun $run): int => $run->readTo(), $runs));
            $lines = $entries = $baseLines = [];
            foreach ($runs as $number => $run) {
                $run->take($upTo, $lines, $entries, $baseLines);
                if ($run->isDone()) {
                    unset($runs[$number]);
                }
            }
            asort($lines, SORT_NUMERIC);
            foreach ($lines as $place => $line) {
                yield $baseLines[$place] => FindingEntry::fromBytes($entries[$place]);
            }
        }
    }

    private function flush(): void
    {
        $this->file ??= new AtomicFile($this->path);
        $this->file->write($this->buffer);
        $this->buffer = '';
    }
}
