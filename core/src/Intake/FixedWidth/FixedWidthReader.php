<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\FixedWidth;

use NineTally\Core\Intake\AllButLast;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\RowByRowBatches;
use NineTally\Core\Intake\SinglePart;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads text of fixed width as a stream. A line that ends early has blank cells at its end, for editors take spaces away; a blank line is
 * no record.
 */
final readonly class FixedWidthReader implements Reader
{
    use SinglePart;
    use RowByRowBatches;

    private Columns $columns;

    /** The line of the header; that of the last one skipped where there is none. */
    private int $headerLine;

    /** @throws UnreadableFile */
    public function __construct(
        private string $path,
        private string $name,
        private FixedWidthFormat $format,
        private int $rowLimit = DelimitedReader::ROW_LIMIT,
    ) {
        $names = array_fill(0, count($format->starts), '');
        $at = $format->skipAbove;
        if ($format->hasHeader) {
            foreach ($format->lines($path, $name, $rowLimit)->read() as $number => $line) {
                if ($number > $format->skipAbove && trim((string) $line) !== '') {
                    [$names, $at] = [$format->cells((string) $line), $number];
                    break;
                }
            }
            if ($at === $format->skipAbove) {
                throw UnreadableFile::hasNoHeader($name, 'every line is blank');
            }
        }
        $this->headerLine = $at;
        $this->columns =
            count($names) > Columns::MOST ? throw UnreadableFile::hasTooManyColumns($name, count($names)) : Columns::named($name, $names);
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
        foreach (AllButLast::of($this->lines($onBytes), $this->format->skipBelow) as $number => $line) {
            yield $this->record($number, $line);
        }
    }

    /** @return \Generator<int, string|null> below the header, by number, without those with nothing on them; null for one too long */
    private function lines(?callable $onBytes): \Generator
    {
        foreach ($this->format->lines($this->path, $this->name, $this->rowLimit)->read($onBytes) as $number => $line) {
            if ($number > $this->headerLine && trim($line ?? 'too long') !== '') {
                yield $number => $line;
            }
        }
    }

    private function record(int $number, ?string $line): Row|RefusedRecord
    {
        return match (true) {
            $line === null => RefusedRecord::because($number, RefusalReason::OverRowLimit, ['limit' => $this->rowLimit], ''),
            ! mb_check_encoding($line, 'UTF-8') || str_contains($line, "\0") => RefusedRecord::because(
                $number,
                RefusalReason::UndecodableBytes,
                ['encoding' => $this->format->encoding->value],
                $line,
            ),
            default => new Row($number, $this->format->cells($line)),
        };
    }
}
