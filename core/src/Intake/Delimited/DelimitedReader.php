<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Delimited;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\SinglePart;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Wording\Sentences;

/**
 * Reads delimited text (RFC 4180) as a stream: rows, and records refused with line, reason and raw text.
 *
 * A line with nothing on it is no record; a record of delimiters only is a row. Holds a block and a record.
 */
final readonly class DelimitedReader implements Reader
{
    use SinglePart;

    public const ROW_LIMIT = 16 * 1024 * 1024;

    /** A record that goes on for longer is put together line by line, so that its beginning is not looked at again and again. */
    private const LONG_RECORD = 1_048_576;

    public Columns $columns;

    private DelimitedText $text;

    /** By what the records ended that were read last, from the beginning of the file. */
    public LineEndCount $lineEnds;

    /**
     * Reads the header.
     *
     * @param  string  $name  the file as the person knows it, for messages
     * @param  int  $rowLimit  bytes; a longer record is refused and skipped as it streams by
     *
     * @throws UnreadableFile
     */
    public function __construct(
        private string $path,
        private string $name,
        private DelimitedFormat $format,
        private int $rowLimit = self::ROW_LIMIT,
    ) {
        $this->lineEnds = new LineEndCount;
        $this->text = new DelimitedText($path, $name, $format);
        $this->columns = $this->header();
    }

    /** Finds the format first. */
    public static function detecting(string $path, string $name, int $rowLimit = self::ROW_LIMIT): self
    {
        return new self($path, $name, (new FormatDetection)->find($path, $name)->format, $rowLimit);
    }

    public function columns(): Columns
    {
        return $this->columns;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function bytes(): int
    {
        return (int) @filesize($this->path);
    }

    public function records(?callable $onBytes = null): \Generator
    {
        foreach ($this->batches(new ByteRange, $onBytes) as $batch) {
            if ($batch instanceof RefusedRecord) {
                yield $batch;

                continue;
            }
            $line = $batch->firstLine;
            foreach (explode(Batch::ROW_END, $batch->rows) as $row) {
                yield new Row($line, explode(Batch::CELL_END, $row));
                $line += $batch->linesOf($row);
            }
        }
    }

    public function batches(ByteRange $range = new ByteRange, ?callable $onBytes = null): \Generator
    {
        $assembly = new RecordAssembly($this->format, $this->rowLimit);
        $reading = new BlockReading($this->format, $this->columns->count(), $this->lineEnds);
        $isHeader = $range->start === 0 && $this->format->hasHeader;
        if ($range->start === 0) {
            $assembly->skipLines($this->format->skipAbove);
            $this->lineEnds->forget();
        }
        $rest = '';
        foreach ($this->text->blocks($range, $onBytes) as $block) {
            $rest .= $block;
            $cut = null;
            while (! $isHeader && $assembly->isBetweenRecords() && ($cut = LineEnds::lastOutsideQuotes($rest)) !== null) {
                // Of CR LF the place is that of its LF.
                $text = substr($rest, 0, $rest[$cut] === "\n" && $cut > 0 && $rest[$cut - 1] === "\r" ? $cut - 1 : $cut);
                $batch = strlen($text) > $this->rowLimit ? null : $reading->read($text, $assembly->linesRead() + 1);
                if ($batch === null) {
                    break;
                }
                $assembly->skipLines(LineEnds::count($text) + 1);
                $this->lineEnds->add(substr($rest, strlen($text), $cut + 1 - strlen($text)));
                $rest = substr($rest, $cut + 1);
                yield $this->asWritten($batch);
            }
            if ($isHeader || ! $assembly->isBetweenRecords() || strlen($rest) > min(self::LONG_RECORD, $this->rowLimit) || $cut !== null) {
                if (
                    ! $range->isWholeFile() &&
                    $reading->hasStrayQuotes(substr($rest, 0, LineEnds::last($rest, strlen($rest)) ?? strlen($rest)))
                ) {
                    throw new StrayQuotes;
                }
                [$lines, $rest] = LineEnds::split($rest, false);
                foreach ($lines as [$line, $end]) {
                    $record = $assembly->add($line, true, $end);
                    $record === null || $this->lineEnds->add($end);
                    if ($record !== null && $isHeader) {
                        $isHeader = false;
                    } elseif ($record !== null) {
                        yield $this->rowOrRefusal($record, $assembly->linesRead());
                    }
                }
            }
            if (strlen($rest) > $this->rowLimit) {
                $assembly->add($rest, false);
                $rest = '';
            }
        }
        yield from $this->ending($assembly, $rest, $isHeader, $range);

        return $assembly->linesRead();
    }

    /**
     * Divides the file for several workers.
     *
     * @param  int  $bytes  about how long a range should be
     * @return non-empty-list<ByteRange>
     */
    public function ranges(int $bytes): array
    {
        return RangeSurvey::of($this->path, $this->name, $this->format, $bytes);
    }

    private function header(): Columns
    {
        $assembly = new RecordAssembly($this->format, $this->rowLimit);
        $assembly->skipLines($this->format->skipAbove);
        $rest = '';
        $record = null;
        foreach ($this->text->blocks(new ByteRange, null) as $block) {
            [$lines, $rest] = LineEnds::split($rest.$block, false);
            foreach ($lines as [$line, $end]) {
                $record = $assembly->add($line, true, $end);
                if ($record !== null) {
                    break 2;
                }
            }
            if (strlen($rest) > $this->rowLimit) {
                break;
            }
        }
        foreach ($record === null ? LineEnds::split($rest, true)[0] : [] as [$line, $end]) {
            $record ??= $assembly->add($line, true, $end);
        }
        if ($record === null) {
            throw $assembly->isQuoteOpen()
                ? UnreadableFile::hasQuoteLeftOpen($this->name, $assembly->leftOpen()[0])
                : UnreadableFile::hasNoHeader($this->name, 'every line is blank');
        }
        [, $cells, , $reason] = $record;

        if (count($cells) > Columns::MOST) {
            throw UnreadableFile::hasTooManyColumns($this->name, count($cells));
        }
        if (! $this->format->hasHeader) {
            // Columns without a name are called by their place.
            $cells = array_fill(0, count($cells), '');
        }
        $cells = array_map($this->format->quote->exchanged(...), $cells);

        return $reason === null
            ? Columns::named($this->name, $cells)
            : throw UnreadableFile::hasNoHeader($this->name, (new Sentences)->refusal($reason, $this->facts($reason, 0, 1)));
    }

    /**
     * @return \Generator<int, Batch|RefusedRecord> what is left when the bytes are at their end
     *
     * @throws StrayQuotes when the range ends inside a quoted cell: then counting quotes has divided the file in the wrong places
     */
    private function ending(RecordAssembly $assembly, string $rest, bool $isHeader, ByteRange $range): \Generator
    {
        foreach (LineEnds::split($rest, true)[0] as [$line, $end]) {
            $record = $assembly->add($line, true, $end);
            $record === null || $this->lineEnds->add($end);
            if ($record !== null && ! $isHeader) {
                yield $this->rowOrRefusal($record, $assembly->linesRead());
            }
            $isHeader = $isHeader && $record === null;
        }
        $record = $assembly->end();
        if ($record !== null) {
            yield $this->rowOrRefusal($record, $assembly->linesRead());
        } elseif ($assembly->isQuoteOpen()) {
            if (! $range->isWholeFile()) {
                throw new StrayQuotes;
            }
            // All that the quote swallowed is one record, so that nothing in front of it is lost.
            [$line, $raw] = $assembly->leftOpen();
            yield RefusedRecord::because(
                $line,
                RefusalReason::QuoteLeftOpen,
                ['lines' => 1 + $assembly->linesRead() - $line],
                $this->format->quote->exchanged($raw),
            );
        }
    }

    /** @param array{int, list<string>, string, RefusalReason|null} $record */
    private function rowOrRefusal(array $record, int $lastLine): Batch|RefusedRecord
    {
        [$line, $cells, $raw, $reason] = $record;
        if ($reason === null && count($cells) === $this->columns->count()) {
            return $this->asWritten(new Batch(implode(Batch::CELL_END, $cells), $line, "\r\n"));
        }
        $reason ??= RefusalReason::WrongNumberOfCells;

        // Of a record without quotes all are counted, also those that nobody keeps apart.
        $count = str_contains($raw, '"') ? count($cells) : 1 + substr_count($raw, $this->format->delimiter);

        return RefusedRecord::because(
            $line,
            $reason,
            $this->facts($reason, $count, 1 + $lastLine - $line),
            $this->format->quote->exchanged($raw),
        );
    }

    private function asWritten(Batch $batch): Batch
    {
        return $this->format->quote === QuoteSign::Double ? $batch : $batch->with($this->format->quote->exchanged($batch->rows));
    }

    /**
     * @param  int  $lines  physical lines of the record
     * @return array<string, string|int>
     */
    private function facts(RefusalReason $reason, int $cells, int $lines): array
    {
        return match ($reason) {
            RefusalReason::WrongNumberOfCells => ['cells' => $cells, 'columns' => $this->columns->count()],
            RefusalReason::UndecodableBytes => ['encoding' => $this->format->encoding->value],
            RefusalReason::OverRowLimit => ['limit' => $this->rowLimit],
            default => [],
        } + ($lines > 1 ? ['lines' => $lines] : []);
    }
}
