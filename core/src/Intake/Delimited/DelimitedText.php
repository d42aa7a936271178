<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\Encoding;
use NineTally\Core\Intake\UnreadableFile;

/**
 * The text of a delimited file as UTF-8, in blocks: without the lines above and below the table, decoded as its format says, and as if
 * double quotes were its quotes.
 */
final readonly class DelimitedText
{
    /** Allocations over 2 MB are mapped and unmapped each time; blocks of this size stay in the processor's cache. */
    private const BLOCK_BYTES = 131_072;

    /** What the lines above, and those below, may be as long as. */
    private const SURVEY_BYTES = 1_048_576;

    public function __construct(private string $path, private string $name, private DelimitedFormat $format) {}

    /**
     * The text of a range as UTF-8, without the lines above and below.
     *
     * @return \Generator<int, string>
     */
    public function blocks(ByteRange $range, ?callable $onBytes): \Generator
    {
        $stream = ByteStream::open($this->path, $this->name);
        // Only in plain text of one byte a letter does one know by the bytes where its lines are.
        $isPlain = ! $stream->isPacked && $this->format->encoding->unit() === 1;
        $text = $this->decoded($stream, $range, $isPlain, $onBytes);

        return $isPlain || ($this->format->skipAbove === 0 && $this->format->skipBelow === 0) ? $text : $this->withoutLinesAround($text);
    }

    /**
     * Text without the lines above and below that are skipped, where those can only be told when it streams by. Holds what the lines below
     * may be as long as.
     *
     * @param  \Generator<int, string>  $text
     * @return \Generator<int, string>
     */
    private function withoutLinesAround(\Generator $text): \Generator
    {
        [$above, $held] = [$this->format->skipAbove, ''];
        foreach ($text as $block) {
            for ($held .= $block; $above > 0 && ($next = LineEnds::next($held, 0)) !== null && $next < strlen($held); $above--) {
                $held = substr($held, $next);
            }
            if ($above === 0 && strlen($held) > 2 * self::SURVEY_BYTES) {
                yield substr($held, 0, -self::SURVEY_BYTES);
                $held = substr($held, -self::SURVEY_BYTES);
            }
        }
        if ($above > 0) {
            throw UnreadableFile::hasNoHeader($this->name, sprintf('there are no %d lines above it', $this->format->skipAbove));
        }
        $rest = $this->withoutLinesBelow($held);
        if ($rest !== '') {
            yield $rest;
        }
    }

    private function withoutLinesBelow(string $tail): string
    {
        if ($this->format->skipBelow === 0) {
            return $tail;
        }
        $tail = rtrim($tail, "\r\n");
        for ($line = 0; $line < $this->format->skipBelow; $line++) {
            $found = LineEnds::last($tail, strlen($tail));
            $tail = $found === null ? '' : rtrim(substr($tail, 0, $found), "\r");
        }

        return $tail;
    }

    /** @return \Generator<int, string> */
    private function decoded(ByteStream $stream, ByteRange $range, bool $isPlain, ?callable $onBytes): \Generator
    {
        try {
            $start = $range->start === 0 ? ($isPlain ? $this->beginning() : $this->format->markBytes()) : $range->start;
            if ($start > 0) {
                $stream->isPacked ? $stream->read($start) : $stream->seek($start);
            }
            $left = ($range->end ?? ($isPlain ? $this->end() : PHP_INT_MAX)) - $start;
            $open = '';
            while ($left > 0 && ($block = $stream->read(min(self::BLOCK_BYTES, $left))) !== '') {
                $left -= strlen($block);
                if ($this->format->encoding !== Encoding::Utf8) {
                    $block = $open.$block;
                    $kept = strlen($block) - $this->format->encoding->openAtEnd($block);
                    $open = substr($block, $kept);
                    $block = $this->format->encoding->decode(substr($block, 0, $kept));
                }
                yield $this->format->quote->exchanged($block);
                $onBytes === null || $onBytes($stream->position());
            }
            if ($open !== '') {
                yield "\xFF";
            }
        } finally {
            $stream->close();
        }
    }

    /** @return int the byte on which the header begins */
    private function beginning(): int
    {
        $start = $this->format->markBytes();
        if ($this->format->skipAbove === 0) {
            return $start;
        }
        $bytes = (string) file_get_contents($this->path, false, null, 0, self::SURVEY_BYTES);
        for ($line = 0; $line < $this->format->skipAbove; $line++) {
            $start =
                LineEnds::next($bytes, $start) ??
                throw UnreadableFile::hasNoHeader($this->name, sprintf('there are no %d lines above it', $this->format->skipAbove));
        }

        return $start;
    }

    /** @return int the byte on which the lines begin that come after the last record */
    private function end(): int
    {
        if ($this->format->skipBelow === 0) {
            return PHP_INT_MAX;
        }
        $size = (int) @filesize($this->path);
        $from = max(0, $size - self::SURVEY_BYTES);

        return $from + strlen($this->withoutLinesBelow((string) file_get_contents($this->path, false, null, $from)));
    }
}
