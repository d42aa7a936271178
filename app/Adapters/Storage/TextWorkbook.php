<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use Illuminate\Filesystem\Filesystem;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;
use OpenSpout\Writer\WriterMultiSheetsAbstract;

/**
 * Writes a workbook (XLSX) row by row in which every value is text, so that nothing is read as a formula, a date or a float; counts and
 * lines
 * are numbers. A sheet that is full is followed by another with the same header.
 */
final class TextWorkbook
{
    /** A sheet has 1,048,576 rows (ECMA-376); one is the header. */
    private const ROWS_OF_SHEET = 1_048_575;

    /** What is longer than a cell can be is cut, and says so at its end. */
    private const LONGEST_CELL = 32_767;

    private const CUT = ' … (cut at 32,767 characters; CSV and JSON Lines have it whole)';

    private int $rows = 0;

    /** @param list<string> $header none where sheets are named */
    private function __construct(
        private readonly WriterMultiSheetsAbstract $writer,
        private array $header,
        private readonly string $folder,
    ) {
        if ($header !== []) {
            $writer->addRow(self::row($header));
        }
    }

    /**
     * @param  string  $workFolder  in which it gets a folder of its own, that is there until it is discarded
     * @param  list<string>  $header  none where sheets are named ({@see sheet()})
     */
    public static function in(string $workFolder, array $header): self
    {
        $folder = "{$workFolder}/workbook-".bin2hex(random_bytes(8));
        mkdir($folder, 0700, true);
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->setTempFolder($folder);
        $writer->openToFile("{$folder}/workbook.xlsx");

        return new self($writer, $header, $folder);
    }

    /**
     * Begins another sheet, with a header of its own; the first is named by the first call.
     *
     * @param  list<string>  $header
     */
    public function sheet(string $name, array $header): void
    {
        $isFirst = $this->rows === 0 && $this->header === [];
        $sheet = $isFirst ? $this->writer->getCurrentSheet() : $this->writer->addNewSheetAndMakeItCurrent();
        $sheet->setName($name);
        $this->header = $header;
        $this->writer->addRow(self::row($header));
        $this->rows = 0;
    }

    /** @param list<string|int|float> $cells */
    public function add(array $cells): void
    {
        if ($this->rows > 0 && $this->rows % self::ROWS_OF_SHEET === 0) {
            $this->writer->addNewSheetAndMakeItCurrent();
            $this->writer->addRow(self::row($this->header));
        }
        $this->writer->addRow(self::row($cells));
        $this->rows++;
    }

    /** @return string path of the workbook, to be moved away before all else of it is discarded */
    public function finish(): string
    {
        $this->writer->close();

        return "{$this->folder}/workbook.xlsx";
    }

    public function discard(): void
    {
        (new Filesystem)->deleteDirectory($this->folder);
    }

    /** @param list<string|int|float> $values */
    private static function row(array $values): Row
    {
        return WriterEntityFactory::createRow(
            array_map(static function (string|int|float $value): Cell {
                $cell = WriterEntityFactory::createCell(is_string($value) ? self::text($value) : $value);
                $cell->setType(is_string($value) ? Cell::TYPE_STRING : Cell::TYPE_NUMERIC);

                return $cell;
            }, $values)
        );
    }

    private static function text(string $value): string
    {
        // Characters that XML has not are replaced.
        $text = (string) preg_replace('/[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u', "\u{FFFD}", $value);

        return mb_strlen($text) <= self::LONGEST_CELL ? $text : mb_substr($text, 0, self::LONGEST_CELL - mb_strlen(self::CUT)).self::CUT;
    }
}
