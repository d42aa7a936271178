<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use App\Queries\Findings\Filter;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;

/** The findings of a filter to be taken away, streamed in source order. A row is a line; of a changed row each cell is. */
final readonly class TakenFindings
{
    private const PAGE = 2_000;

    public function __construct(private FindingPages $pages) {}

    /** @return \Generator<int, string> CSV (RFC 4180) in UTF-8 with LF */
    public function asCsv(Tally $tally, Filter $filter, Mask $mask, bool $forSpreadsheets): \Generator
    {
        $line = $forSpreadsheets ? CsvLine::forSpreadsheets(...) : CsvLine::of(...);
        yield $line($this->header($tally));
        foreach ($this->records($tally, $filter, $mask) as $record) {
            yield $line($record);
        }
    }

    /** @return \Generator<int, string> an object a line, every value a string */
    public function asJsonLines(Tally $tally, Filter $filter, Mask $mask): \Generator
    {
        $names = $this->header($tally);
        foreach ($this->records($tally, $filter, $mask) as $record) {
            yield json_encode(array_combine($names, $record), JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n";
        }
    }

    /** @return list<string> */
    public function header(Tally $tally): array
    {
        return ['key: '.implode(', ', $tally->planVersion->plan()->keyNames(Side::Source)), 'row', 'column', 'cell', 'cause', 'source', 'target', 'source line', 'target line', 'ruling'];
    }

    /** @return \Generator<int, list<string>> by how many findings were read with it */
    public function records(Tally $tally, Filter $filter, Mask $mask): \Generator
    {
        $columns = $tally->planVersion->plan()->pairedNames(Side::Source);
        $sequence = $read = 0;
        do {
            $findings = $this->pages->after($tally, $filter, $mask, $sequence, self::PAGE);
            $cells = $this->cellsOfChanged($tally, $mask, $findings);
            foreach ($findings as $finding) {
                $sequence = $finding->sequence;
                $read++;
                if ($finding instanceof CellLine) {
                    yield $read => $this->cell($finding, $columns);

                    continue;
                }
                foreach ($cells[$sequence] ?? [] as $cell) {
                    yield $read => $this->cell($cell, $columns);
                }
                if ($finding->class !== 'changed') {
                    yield $read => $this->row($finding);
                }
            }
        } while (count($findings) === self::PAGE);
    }

    /**
     * @param  list<RowLine>|list<CellLine>  $findings
     * @return array<int, list<CellLine>> by the sequence of the row
     */
    private function cellsOfChanged(Tally $tally, Mask $mask, array $findings): array
    {
        $changed = array_values(array_filter($findings, static fn(RowLine|CellLine $finding): bool => $finding instanceof RowLine && $finding->class === 'changed'));

        return $changed === [] ? [] : $this->pages->cellsOfRows($tally, $mask, $changed[0]->sequence, $changed[count($changed) - 1]->sequence);
    }

    /**
     * @param  list<string>  $columns  of the source, by the place of their pair
     * @return list<string>
     */
    private function cell(CellLine $cell, array $columns): array
    {
        return [(string) $cell->key, 'changed', $columns[$cell->pairPosition], $cell->class, $cell->cause, $cell->source, $cell->target, (string) $cell->sourceLine, (string) $cell->targetLine, $cell->decision->value];
    }

    /** @return list<string> */
    private function row(RowLine $row): array
    {
        return [(string) $row->key, $row->class, '', '', '', $this->record($row->sourceCells, $row->side === 'source' ? $row->refusal : null), $this->record($row->targetCells, $row->side === 'target' ? $row->refusal : null), (string) $row->sourceLine, (string) $row->targetLine, $row->decision->value];
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
