<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;

/**
 * Puts records together line by line: the careful way, for what cannot be read block by block.
 *
 * Holds the record that is open, up to the row limit; what is longer is counted as it streams by.
 */
final class RecordAssembly
{
    private readonly RecordParser $parser;

    private int $begunOn = 0;

    private string $raw = '';

    private bool $isValid = true;

    /** While a record over the limit streams by, only its quotes count: an odd number so far means that it goes on. */
    private ?int $quotes = null;

    private bool $isLineOpen = false;

    /** @param int $line lines read before */
    public function __construct(DelimitedFormat $format, private readonly int $rowLimit, private int $line = 0)
    {
        $this->parser = new RecordParser($format->delimiter);
    }

    /** Whether the next line begins a record. */
    public function isBetweenRecords(): bool
    {
        return $this->quotes === null && ! $this->parser->isOpen() && ! $this->isLineOpen;
    }

    public function linesRead(): int
    {
        return $this->line;
    }

    /** Counts lines that were read elsewhere. */
    public function skipLines(int $lines): void
    {
        $this->line += $lines;
    }

    /**
     * @param  string  $line  a physical line without its line end, or a piece of one that outgrows the row limit
     * @param  bool  $isWhole  whether the line ends with it
     * @param  string  $end  by what the line ends
     * @return array{int, list<string>, string, RefusalReason|null}|null line, cells, raw bytes, why refused; null while the record goes on
     */
    public function add(string $line, bool $isWhole, string $end = ''): ?array
    {
        $isInside = $this->quotes !== null || $this->parser->isOpen();
        if (! $isInside && ! $this->isLineOpen) {
            $this->begunOn = $this->line + 1;
        }
        $this->isLineOpen = ! $isWhole;
        $this->line += $isWhole ? 1 : 0;
        if ($this->quotes === null && (! $isWhole || strlen($this->raw) + strlen($line) > $this->rowLimit)) {
            $this->quotes = substr_count($this->raw, '"');
            $this->raw = substr($this->raw.$line, 0, RefusedRecord::RAW_LIMIT);
            $this->parser->reset();
        }
        if ($this->quotes !== null) {
            $this->quotes += substr_count($line, '"');

            return $isWhole && $this->quotes % 2 === 0 ? $this->record([], $this->raw, RefusalReason::OverRowLimit) : null;
        }
        if ($line === '' && ! $isInside) {
            return null;
        }
        // A zero byte is valid UTF-8, but no text holds one and no database keeps it in a text.
        $this->isValid = $this->isValid && mb_check_encoding($line, 'UTF-8') && ! str_contains($line, "\0");
        $cells = $isInside ? $this->parser->goOn($line) : $this->parser->begin($line);
        if ($cells === null) {
            $this->parser->addInside($end);
            $this->raw .= $line.$end;

            return null;
        }

        return $this->record($cells, $this->raw.$line, match (true) {
            ! $this->isValid => RefusalReason::UndecodableBytes,
            $this->parser->isMalformed() => RefusalReason::TextAfterQuote,
            default => null,
        });
    }

    /**
     * At the end of the file.
     *
     * @return array{int, list<string>, string, RefusalReason|null}|null a record over the limit that ended without a line end
     */
    public function end(): ?array
    {
        return $this->quotes !== null && $this->quotes % 2 === 0 ? $this->record([], $this->raw, RefusalReason::OverRowLimit) : null;
    }

    /** @return array{int, string} of the record that a quote left open: the line on which it began, and its beginning */
    public function leftOpen(): array
    {
        return [$this->begunOn, $this->raw];
    }

    /** Whether the file ended inside a quoted cell. */
    public function isQuoteOpen(): bool
    {
        return $this->quotes !== null && $this->quotes % 2 === 1 || $this->parser->isOpen();
    }

    /**
     * @param  list<string>  $cells
     * @return array{int, list<string>, string, RefusalReason|null}
     */
    private function record(array $cells, string $raw, ?RefusalReason $reason): array
    {
        $this->raw = '';
        $this->isValid = true;
        $this->quotes = null;
        $this->isLineOpen = false;

        return [$this->begunOn, $cells, $raw, $reason];
    }
}
