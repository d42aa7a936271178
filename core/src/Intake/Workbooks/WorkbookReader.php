<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use NineTally\Core\Intake\AllButLast;
use NineTally\Core\Intake\Archive;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\RowByRowBatches;
use NineTally\Core\Intake\SinglePart;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads a sheet of a workbook as a stream. A line is a row of the sheet. A row that is shorter than the header is filled with blanks, for
 * workbooks end a row with its last value.
 */
final readonly class WorkbookReader implements Reader
{
    use SinglePart;
    use RowByRowBatches;

    private Columns $columns;

    /** The row on which the header stands; the first one that is not blank from where it was looked for. */
    private int $headerRow;

    /** @throws UnreadableFile */
    public function __construct(private string $path, private string $name, private PartFormat $format)
    {
        $header = null;
        $number = 0;
        $above = [];
        foreach ($this->rows() as $number => $cells) {
            if (implode('', $cells) !== '') {
                $above[$number] = $cells;
            }
            if ($number >= $format->place->headerRow && implode('', $cells) !== '') {
                $header = $cells;
                break;
            }
        }
        if ($header === null) {
            throw UnreadableFile::hasNoHeader(
                $name,
                sprintf('the sheet "%s" is blank from row %d on', $format->sheet, $format->place->headerRow),
            );
        }
        $header = MergedCells::of($path, $format->kind, $format->sheet, $number)->header($above, $number);
        $header = array_slice($header, $format->place->skipLeft);
        while ($header !== [] && end($header) === '') {
            array_pop($header);
        }
        $this->headerRow = $number;
        $this->columns = Columns::named($name, $header);
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
        foreach (AllButLast::of($this->rowsBelowNames(), $this->format->place->skipBelow) as $number => $cells) {
            $left = array_splice($cells, 0, $this->format->place->skipLeft);
            if (implode('', $left) !== '') {
                // Something stands where nothing was: it belongs to no column, and is not lost.
                $cells = [...$left, ...array_pad($cells, $width, '')];
            }
            while (count($cells) > $width && end($cells) === '') {
                array_pop($cells);
            }
            if (count($cells) > $width) {
                yield RefusedRecord::because(
                    $number,
                    RefusalReason::WrongNumberOfCells,
                    ['cells' => count($cells), 'columns' => $width],
                    implode("\t", $cells),
                );
            } else {
                yield new Row($number, array_pad($cells, $width, ''));
            }
        }
        // A damaged one may be read to its end, with other values: what gives dates their form is a file of its own.
        Archive::open($this->path, $this->name)->mustBeWhole();
        $onBytes === null || $onBytes($this->bytes());
    }

    /**
     * Those that hold something: a row with nothing in it is no record, as a line with nothing on it is none.
     *
     * @return \Generator<int, list<string>>
     */
    private function rowsBelowNames(): \Generator
    {
        foreach ($this->rows() as $number => $cells) {
            if ($number > $this->headerRow && implode('', $cells) !== '') {
                yield $number => $cells;
            }
        }
    }

    /** @return \Generator<int, list<string>> by the number of the row */
    private function rows(): \Generator
    {
        $workbook = Workbook::open($this->path, $this->name, $this->format->kind);
        try {
            foreach ($workbook->rows($this->format->sheet) as $number => $cells) {
                yield $number => count($cells) <= Columns::MOST
                    ? $cells
                    : throw UnreadableFile::hasTooManyColumns($this->name, count($cells));
            }
        } finally {
            $workbook->close();
        }
    }
}
