<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads delimited text (RFC 4180) as a stream: rows, and records refused with line, reason and raw text.
 *
 * A line with nothing on it is no record; a record of delimiters only is a row. Holds one block and one record.
 */
final readonly class DelimitedReader
{
    public const ROW_LIMIT = 16 * 1024 * 1024;

    /** Allocations over 2 MB are mapped and unmapped each time; blocks of this size stay in the processor's cache. */
    private const BLOCK_BYTES = 131_072;

    public Columns $columns;

    /**
     * Reads the header.
     *
     * @param  string  $name  the file as the person knows it, for messages
     * @param  int  $rowLimit  bytes; a longer record is refused and skipped as it streams by
     *
     * @throws NotUsable
     */
    public function __construct(private string $path, private string $name, private DelimitedFormat $format, private int $rowLimit = self::ROW_LIMIT)
    {
        $this->columns = $this->header();
    }

    /** Finds the format first. */
    public static function detecting(string $path, string $name, int $rowLimit = self::ROW_LIMIT): self
    {
        return new self($path, $name, (new FormatDetection)->find($path, $name)->format, $rowLimit);
    }

    /**
     * The rows and refused records in the order of the file, numbered from 1 together; the header is not one of them.
     *
     * @param  (callable(int): void)|null  $onBytes  told after each block how many bytes have been read
     * @return \Generator<int, Row|RefusedRecord>
     *
     * @throws NotUsable when a quote is never closed
     */
    public function records(?callable $onBytes = null): \Generator
    {
        $width = $this->columns->count();
        $number = -1;
        foreach ($this->parsed($onBytes) as [$line, $cells, $raw, $reason]) {
            if (++$number === 0) {
                continue;
            }
            if ($reason === null && count($cells) === $width) {
                yield new Row($number, $line, $cells);

                continue;
            }
            $reason ??= RefusalReason::WrongNumberOfCells;
            yield RefusedRecord::because($number, $line, $reason, $this->sentence($reason, count($cells)), $raw);
        }
    }

    private function header(): Columns
    {
        foreach ($this->parsed(null) as [, $cells, , $reason]) {
            if ($reason !== null) {
                throw NotUsable::hasNoHeader($this->name, $this->sentence($reason, 0));
            }

            return Columns::named($this->name, $cells);
        }
        throw NotUsable::hasNoHeader($this->name, 'every line is blank');
    }

    private function sentence(RefusalReason $reason, int $cells): string
    {
        return match ($reason) {
            RefusalReason::WrongNumberOfCells => sprintf('%d cells where the header has %d', $cells, $this->columns->count()),
            RefusalReason::UndecodableBytes => 'bytes that are not UTF-8 text',
            RefusalReason::TextAfterQuote => 'text follows a closing quote',
            RefusalReason::OverRowLimit => sprintf('longer than the row limit of %s bytes', number_format($this->rowLimit)),
        };
    }

    /**
     * Records as they stand, header included.
     *
     * @return \Generator<int, array{int, list<string>, string, RefusalReason|null}> line, cells, raw bytes, why refused
     */
    private function parsed(?callable $onBytes): \Generator
    {
        $parser = new RecordParser($this->format->delimiter);
        $end = $this->format->lineEnds->byte();
        $isCrlf = $this->format->lineEnds === LineEnds::Crlf;
        $lineNumber = $begunOn = 0;
        $raw = '';
        $isValid = true;
        $between = $end;
        // While a record over the limit streams by, only its quotes count: an odd number so far means that it goes on.
        $quotes = null;
        foreach ($this->lines($onBytes) as [$text, $isWhole, $isUtf8]) {
            $isInside = $quotes !== null || $parser->isOpen();
            if (! $isInside) {
                $begunOn = $lineNumber + 1;
            }
            $lineNumber += $isWhole ? 1 : 0;
            $hasReturn = $isCrlf && $isWhole && str_ends_with($text, "\r");
            $line = $hasReturn ? substr($text, 0, -1) : $text;
            if ($quotes === null && (! $isWhole || strlen($raw) + strlen($line) > $this->rowLimit)) {
                $quotes = substr_count($raw, '"');
                $raw = substr($raw.$line, 0, RefusedRecord::RAW_LIMIT);
                $parser->reset();
            }
            if ($quotes !== null) {
                $quotes += substr_count($line, '"');
                if ($isWhole && $quotes % 2 === 0) {
                    yield [$begunOn, [], $raw, RefusalReason::OverRowLimit];
                    $raw = '';
                    $isValid = true;
                    $quotes = null;
                }

                continue;
            }
            if ($line === '' && ! $isInside) {
                continue;
            }
            $isValid = $isValid && $isUtf8;
            $cells = $isInside ? $parser->goOn($line, $between) : $parser->begin($line);
            if ($cells === null) {
                $between = $hasReturn ? "\r".$end : $end;
                $raw .= $line.$between;

                continue;
            }
            yield [$begunOn, $cells, $raw.$line, match (true) {
                ! $isValid => RefusalReason::UndecodableBytes,
                $parser->isMalformed() => RefusalReason::TextAfterQuote,
                default => null,
            }];
            $raw = '';
            $isValid = true;
        }
        if ($quotes !== null && $quotes % 2 === 0) {
            yield [$begunOn, [], $raw, RefusalReason::OverRowLimit];
        } elseif ($quotes !== null || $parser->isOpen()) {
            throw NotUsable::hasQuoteLeftOpen($this->name, $begunOn);
        }
    }

    /**
     * Physical lines without their line end; one that outgrows the row limit comes in pieces.
     *
     * @return \Generator<int, array{string, bool, bool}> text, whether the line ends with it, whether it is UTF-8
     */
    private function lines(?callable $onBytes): \Generator
    {
        $file = is_dir($this->path) ? throw NotUsable::isFolder($this->name) : @fopen($this->path, 'rb');
        if ($file === false) {
            throw NotUsable::cannotBeOpened($this->name);
        }
        try {
            $end = $this->format->lineEnds->byte();
            $read = $this->format->hasByteOrderMark ? strlen((string) fread($file, 3)) : 0;
            $rest = '';
            while (($block = (string) fread($file, self::BLOCK_BYTES)) !== '') {
                $read += strlen($block);
                $cut = strrpos($block, $end);
                if ($cut === false) {
                    $rest .= $block;
                    if (strlen($rest) > $this->rowLimit) {
                        yield [$rest, false, true];
                        $rest = '';
                    }

                    continue;
                }
                $whole = $rest.substr($block, 0, $cut);
                $rest = substr($block, $cut + 1);
                // One check for the block; only in a block that fails is each line looked at.
                $isText = $this->isText($whole);
                foreach (explode($end, $whole) as $line) {
                    yield [$line, true, $isText || $this->isText($line)];
                }
                $onBytes === null || $onBytes($read);
            }
            if ($rest !== '') {
                yield [$rest, true, $this->isText($rest)];
            }
            $onBytes === null || $onBytes($read);
        } finally {
            fclose($file);
        }
    }

    /** A zero byte is valid UTF-8, but no text holds one and no database keeps it in a text. */
    private function isText(string $bytes): bool
    {
        return mb_check_encoding($bytes, 'UTF-8') && ! str_contains($bytes, "\0");
    }
}
