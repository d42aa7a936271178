<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row as SpreadsheetRow;
use OpenSpout\Reader\ReaderInterface;
use OpenSpout\Reader\SheetInterface;

/**
 * Reads a sheet of a workbook as a stream. Real dates become ISO 8601, numbers the shortest text that means the same double,
 * formulas the value that was calculated last, times of the day what a clock shows. A line is a row of the sheet. A row that is shorter than the header is filled with
 * blanks, for workbooks end a row with its last value.
 */
final readonly class WorkbookReader implements Reader
{
    use IsOneFile;
    use ReadsRowByRow;

    /** Day 0 of a workbook: a time without a day is kept as a part of it (ECMA-376, part 1, 18.17.4). */
    private const DAY_OF_TIMES = '1899-12-30';

    /** So many rows, at most, stand above the names of the columns. */
    private const ROWS_OF_HEADING = 20;

    private Columns $columns;

    /** The row on which the header stands; the first one that is not blank from where it was looked for. */
    private int $headerRow;

    /** @throws NotUsable */
    public function __construct(private string $path, private string $name, private PartFormat $format)
    {
        $header = null;
        $number = 0;
        $above = [];
        foreach ($this->rows() as $number => $cells) {
            if (implode('', $cells) !== '') {
                $above[$number] = $cells;
            }
            if ($number >= $format->headerRow && implode('', $cells) !== '') {
                $header = $cells;
                break;
            }
        }
        if ($header === null) {
            throw NotUsable::hasNoHeader($name, sprintf('the sheet "%s" is blank from row %d on', $format->sheet, $format->headerRow));
        }
        $header = MergedCells::of($path, $format->kind, $format->sheet, $number)->header($above, $number);
        while ($header !== [] && end($header) === '') {
            array_pop($header);
        }
        $this->headerRow = $number;
        $this->columns = Columns::named($name, $header);
    }

    /**
     * On which row the names of the columns stand, as far as can be told: below a title, and below names over several columns.
     *
     * @return array{int, string} from 1, with the reason
     */
    public static function likelyHeaderRow(string $path, string $name, PartFormat $format): array
    {
        $first = [1, 'the first row that is not blank'];
        try {
            $reader = new self($path, $name, $format);
        } catch (NotUsable) {
            // Whoever chooses another sheet, or row, need not be told so yet.
            return $first;
        }
        $rows = [];
        foreach ($reader->rows() as $number => $cells) {
            if ($number > $reader->headerRow + self::ROWS_OF_HEADING) {
                break;
            }
            $rows[$number] = array_filter($cells, static fn(string $cell): bool => $cell !== '');
        }
        $merged = null;
        for ($row = $reader->headerRow; isset($rows[$row + 1]); $row++) {
            if (count($rows[$row]) === 1 && count($rows[$row + 1]) > 1) {
                continue;
            }
            // A full row holds no cell that is merged with another.
            if (count($rows[$row]) === count($reader->columns->names) || ! ($merged ??= MergedCells::of($path, $format->kind, $format->sheet, array_key_last($rows)))->areNamesOver($row, $rows[$row + 1])) {
                break;
            }
        }

        return $row === $reader->headerRow ? $first : [$row, 'the first row below titles, and names over several columns'];
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
        $width = $this->columns->count();
        foreach ($this->rows() as $number => $cells) {
            if ($number <= $this->headerRow) {
                continue;
            }
            // A row with nothing in it is no record, as a line with nothing on it is none.
            if (implode('', $cells) === '') {
                continue;
            }
            while (count($cells) > $width && end($cells) === '') {
                array_pop($cells);
            }
            if (count($cells) > $width) {
                yield RefusedRecord::because($number, RefusalReason::WrongNumberOfCells, ['cells' => count($cells), 'columns' => $width], implode("\t", $cells));
            } else {
                yield new Row($number, array_pad($cells, $width, ''));
            }
        }
        $onBytes === null || $onBytes($this->bytes());
    }

    /** @return \Generator<int, list<string>> by the number of the row */
    private function rows(): \Generator
    {
        $reader = Workbook::open($this->path, $this->name, $this->format->kind);
        try {
            $number = 0;
            /** @var SpreadsheetRow $row */
            foreach ($this->sheet($reader)->getRowIterator() as $row) {
                $number++;
                $cells = array_map($this->text(...), array_values($row->getCells()));
                yield $number => count($cells) <= Columns::MOST ? $cells : throw NotUsable::hasTooManyColumns($this->name, count($cells));
            }
        } catch (\OpenSpout\Common\Exception\SpoutException) {
            throw NotUsable::isNoWorkbook($this->name, 'it is damaged');
        } finally {
            $reader->close();
        }
    }

    private function sheet(ReaderInterface $reader): SheetInterface
    {
        /** @var SheetInterface $sheet */
        foreach ($reader->getSheetIterator() as $sheet) {
            if ($sheet->getName() === $this->format->sheet) {
                return $sheet;
            }
        }
        throw NotUsable::isNoWorkbook($this->name, sprintf('it has no sheet "%s"', $this->format->sheet));
    }

    private function text(Cell $cell): string
    {
        // A formula that failed is no blank: "#N/A" stands in the cell.
        $value = $cell->getValueEvenIfError();
        $text = match (true) {
            $value instanceof \DateTimeInterface => $this->moment($value),
            is_bool($value) => $value ? 'true' : 'false',
            is_float($value) => $this->number($value),
            is_int($value), is_string($value) => (string) $value,
            default => '',
        };

        return mb_check_encoding($text, 'UTF-8') ? str_replace("\0", '', $text) : mb_scrub($text);
    }

    private function moment(\DateTimeInterface $value): string
    {
        return match (true) {
            $value->format('H:i:s') === '00:00:00' => $value->format('Y-m-d'),
            $value->format('Y-m-d') === self::DAY_OF_TIMES => $value->format('H:i:s'),
            default => $value->format('Y-m-d\TH:i:s'),
        };
    }

    /** The shortest digits that mean the double, without an exponent. */
    private function number(float $value): string
    {
        $written = (string) json_encode($value);

        return stripos($written, 'e') === false ? (str_ends_with($written, '.0') ? substr($written, 0, -2) : $written) : (string) \Brick\Math\BigDecimal::of($written);
    }
}
