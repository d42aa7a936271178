<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\TextWorkbook;
use App\Models\Tally;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;

/** Findings of a tally to be taken away, streamed: all in source order, or those of one row class or pattern. A row is a line; of a changed row each cell is. */
final readonly class TakenFindings
{
    private const PAGE = 2_000;

    public function __construct(private FindingPages $pages) {}

    /** @return \Generator<int, string> CSV (RFC 4180) in UTF-8 with LF */
    public function asCsv(Tally $tally, bool $forSpreadsheets, ?string $class = null, ?int $pattern = null): \Generator
    {
        $line = $forSpreadsheets ? CsvLine::forSpreadsheets(...) : CsvLine::of(...);
        yield $line($this->header($tally));
        foreach ($this->records($tally, $class, $pattern) as $record) {
            yield $line($record);
        }
    }

    /** @return \Generator<int, string> an object a line, every value a string */
    public function asJsonLines(Tally $tally, ?string $class = null, ?int $pattern = null): \Generator
    {
        $names = $this->header($tally);
        foreach ($this->records($tally, $class, $pattern) as $record) {
            yield json_encode(array_combine($names, $record), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n";
        }
    }

    /** @return string path of the workbook, which is the caller's to remove; every cell is text, so that none is run as a formula */
    public function asWorkbook(Tally $tally, string $folder, ?string $class = null, ?int $pattern = null): string
    {
        $workbook = TextWorkbook::in($folder, $this->header($tally));
        foreach ($this->records($tally, $class, $pattern) as $record) {
            $workbook->add($record);
        }

        return $workbook->finish();
    }

    /** @return list<string> */
    private function header(Tally $tally): array
    {
        return ['key: '.implode(', ', $tally->planVersion->plan()->keyNames(Side::Source)), 'row', 'column', 'cell', 'cause', 'source', 'target', 'source line', 'target line', 'ruling'];
    }

    /** @return \Generator<int, list<string>> */
    private function records(Tally $tally, ?string $class, ?int $pattern): \Generator
    {
        return $pattern === null ? $this->rows($tally, $class) : $this->cellsOf($tally, $pattern);
    }

    /** @return \Generator<int, list<string>> */
    private function rows(Tally $tally, ?string $class): \Generator
    {
        $columns = $this->columns($tally);
        $from = 1;
        do {
            $rows = $this->pages->rows($tally, $class, $from, self::PAGE)['items'];
            $cells = $rows === [] || ! in_array($class, [null, 'changed'], true) ? [] : $this->pages->cellsOfRows($tally, $rows[0]->sequence, $rows[count($rows) - 1]->sequence);
            foreach ($rows as $row) {
                $from = $row->ordinal + 1;
                foreach ($cells[$row->sequence] ?? [] as $cell) {
                    yield $this->cell($cell, $columns);
                }
                if ($row->class !== 'changed') {
                    yield [(string) $row->key, $row->class, '', '', '', $this->record($row->sourceCells, $row->side === 'source' ? $row->refusal : null), $this->record($row->targetCells, $row->side === 'target' ? $row->refusal : null), (string) $row->sourceLine, (string) $row->targetLine, $row->decision->value];
                }
            }
        } while (count($rows) === self::PAGE);
    }

    /** @return \Generator<int, list<string>> */
    private function cellsOf(Tally $tally, int $pattern): \Generator
    {
        $columns = $this->columns($tally);
        $from = 1;
        do {
            $cells = $this->pages->cells($tally, $pattern, $from, self::PAGE)['items'];
            foreach ($cells as $cell) {
                $from = $cell->ordinal + 1;
                yield $this->cell($cell, $columns);
            }
        } while (count($cells) === self::PAGE);
    }

    /** @return list<string> source columns by the place of their pair */
    private function columns(Tally $tally): array
    {
        return $tally->planVersion->plan()->pairedNames(Side::Source);
    }

    /**
     * @param  list<string>  $columns
     * @return list<string>
     */
    private function cell(CellLine $cell, array $columns): array
    {
        return [(string) $cell->key, 'changed', $columns[$cell->pairPosition], $cell->class, $cell->cause, $cell->source, $cell->target, (string) $cell->sourceLine, (string) $cell->targetLine, $cell->decision->value];
    }

    /**
     * A whole row as one RFC 4180 record inside its cell.
     *
     * @param  list<string>|null  $cells
     */
    private function record(?array $cells, ?string $refusal): string
    {
        return $cells === null ? $refusal ?? '' : rtrim(CsvLine::of($cells), "\n");
    }
}
