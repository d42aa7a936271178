<?php

declare(strict_types=1);

namespace App\Queries\Shape;

use NineTally\Core\Intake\Reader;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Row;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Writer\Common\Creator\WriterEntityFactory;

/** A shaped side to be taken away, in blocks: the same bytes for the same input. */
final readonly class ShapedRows
{
    private const BLOCK_BYTES = 65_536;

    /** A sheet has 1,048,576 rows (ECMA-376); one is the header. */
    private const ROWS_OF_SHEET = 1_048_575;

    private const LONGEST_CELL = 32_767;

    /** @return \Generator<int, string> UTF-8, comma, RFC 4180 quotes, LF */
    public function asCsv(Reader $reader): \Generator
    {
        return $this->inBlocks(CsvLine::of($reader->columns()->names), $reader, static fn(Row $row): string => CsvLine::of($row->cells));
    }

    /** @return \Generator<int, string> an object a line, every value a string */
    public function asJsonLines(Reader $reader): \Generator
    {
        $names = $reader->columns()->names;

        return $this->inBlocks('', $reader, static fn(Row $row): string => json_encode((object) array_combine($names, $row->cells), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n");
    }

    /**
     * Every cell as text, so that nothing is read as a formula, a date or a float; a sheet is full after so many rows, and another follows.
     *
     * @return string path of the workbook, which is the caller's to remove
     */
    public function asWorkbook(Reader $reader, string $folder): string
    {
        $path = "{$folder}/taken-".bin2hex(random_bytes(8)).'.xlsx';
        $writer = WriterEntityFactory::createXLSXWriter();
        $writer->setTempFolder($folder);
        $writer->openToFile($path);
        $header = self::cells($reader->columns()->names);
        $written = 0;
        foreach ($reader->records() as $record) {
            if (! $record instanceof Row) {
                continue;
            }
            if ($written % self::ROWS_OF_SHEET === 0) {
                $written === 0 || $writer->addNewSheetAndMakeItCurrent();
                $writer->addRow(WriterEntityFactory::createRow($header));
            }
            $writer->addRow(WriterEntityFactory::createRow(self::cells($record->cells)));
            $written++;
        }
        $written > 0 || $writer->addRow(WriterEntityFactory::createRow($header));
        $writer->close();

        return $path;
    }

    /**
     * @param  list<string>  $values
     * @return list<Cell>
     */
    private static function cells(array $values): array
    {
        return array_map(static function (string $value): Cell {
            // What is longer than a cell can be is cut (ECMA-376 allows 32,767 characters), and characters that XML has not are replaced.
            $cell = WriterEntityFactory::createCell(mb_substr((string) preg_replace('/[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]/u', "\u{FFFD}", $value), 0, self::LONGEST_CELL));
            $cell->setType(Cell::TYPE_STRING);

            return $cell;
        }, $values);
    }

    /**
     * @param  \Closure(Row): string  $written
     * @return \Generator<int, string>
     */
    private function inBlocks(string $block, Reader $reader, \Closure $written): \Generator
    {
        foreach ($reader->records() as $record) {
            $block .= $record instanceof Row ? $written($record) : '';
            if (strlen($block) > self::BLOCK_BYTES) {
                yield $block;
                $block = '';
            }
        }
        yield $block;
    }
}
