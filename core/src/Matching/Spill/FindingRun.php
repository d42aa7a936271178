<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

/** One stream of findings that {@see FindingSpool} wrote, read by blocks: what was read and not yet taken is held. */
final class FindingRun
{
    /** Digits of a line. */
    private const LONGEST_LINE = 20;

    private readonly WorkspaceReader $file;

    private bool $isAtEnd = false;

    /** What was read of an entry that goes on in the next block. */
    private string $rest = '';

    /** @var list<int> of the entries that are held, in order */
    private array $lines = [];

    /** @var list<string> */
    private array $entries = [];

    /** How many of those that are held were taken. */
    private int $taken = 0;

    /**
     * @param  int  $baseLine  the lines that come before the stream's own
     * @param  int  $from  what comes before this line is passed over
     * @param  int  $to  what comes from this line on is not read
     */
    public function __construct(
        private readonly string $path,
        private readonly int $baseLine,
        private readonly int $blockBytes,
        private readonly int $from = 0,
        private readonly int $to = PHP_INT_MAX,
    ) {
        $this->file = WorkspaceReader::forReading($path);
    }

    /** @return int the line up to which everything is held */
    public function readTo(): int
    {
        if (! $this->isAtEnd && 2 * $this->taken >= count($this->lines)) {
            $this->read();
        }

        return $this->isAtEnd ? PHP_INT_MAX : $this->lines[count($this->lines) - 1];
    }

    /**
     * Hands on all that is held up to a line.
     *
     * @param  list<int>  $lines
     * @param  list<string>  $entries
     * @param  list<int>  $baseLines
     */
    public function take(int $to, array &$lines, array &$entries, array &$baseLines): void
    {
        $count = count($this->lines);
        while ($this->taken < $count && $this->lines[$this->taken] <= $to) {
            $lines[] = $this->lines[$this->taken];
            $entries[] = $this->entries[$this->taken];
            $baseLines[] = $this->baseLine;
            $this->taken++;
        }
    }

    public function isDone(): bool
    {
        return $this->isAtEnd && $this->taken === count($this->lines);
    }

    /** One entry more at least, unless the stream ends. */
    private function read(): void
    {
        $this->lines = array_slice($this->lines, $this->taken);
        $this->entries = array_slice($this->entries, $this->taken);
        $this->taken = 0;
        $held = count($this->lines);
        do {
            $block = $this->file->readUpTo($this->blockBytes);
            if ($block === '') {
                $this->isAtEnd = $this->rest === '' ? true : throw WorkspaceFailure::reading($this->path);

                return;
            }
            $this->cut($this->rest.$block);
        } while (! $this->isAtEnd && count($this->lines) === $held);
    }

    private function cut(string $bytes): void
    {
        $at = 0;
        $end = strlen($bytes);
        while ($at + FindingSpool::HEAD_BYTES <= $end) {
            /** @var array{size: int} $head */
            $head = unpack('Nsize', $bytes, $at);
            $next = $at + FindingSpool::HEAD_BYTES + $head['size'];
            if ($next > $end) {
                break;
            }
            // An entry begins with its line.
            $line = $this->baseLine + (int) substr($bytes, $at + FindingSpool::HEAD_BYTES, self::LONGEST_LINE);
            if ($line >= $this->to) {
                $this->isAtEnd = true;
                $at = $end;
                break;
            }
            if ($line >= $this->from) {
                $this->lines[] = $line;
                $this->entries[] = substr($bytes, $at + FindingSpool::HEAD_BYTES, $head['size']);
            }
            $at = $next;
        }
        $this->rest = substr($bytes, $at);
    }
}
