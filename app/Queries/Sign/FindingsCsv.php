<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Tally;
use App\Queries\Review\FindingPages;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;

/** All findings of a tally as CSV, in source order: a line for each row, and for a changed row a line for each cell. */
final readonly class FindingsCsv
{
    private const PAGE = 2_000;

    public function __construct(private FindingPages $pages) {}

    /** @return \Generator<int, string> */
    public function lines(Tally $tally, bool $forSpreadsheets): \Generator
    {
        $line = $forSpreadsheets ? CsvLine::forSpreadsheets(...) : CsvLine::of(...);
        $plan = $tally->planVersion->plan();
        yield $line(['key: '.implode(', ', $plan->keyNames(Side::Source)), 'row', 'column', 'cell', 'cause', 'source', 'target', 'source line', 'target line', 'ruling']);
        $from = 1;
        do {
            $rows = $this->pages->rows($tally, null, $from, self::PAGE)['items'];
            $cells = $rows === [] ? [] : $this->pages->cellsOfRows($tally, $rows[0]->sequence, $rows[count($rows) - 1]->sequence);
            foreach ($rows as $row) {
                $from = $row->sequence + 1;
                foreach ($cells[$row->sequence] ?? [] as $cell) {
                    yield $line([(string) $row->key, 'changed', $plan->columnPairs[$cell->pairPosition]->source, $cell->class, $cell->cause, $cell->source, $cell->target, (string) $row->sourceLine, (string) $row->targetLine, $cell->decision->value]);
                }
                if ($row->class !== 'changed') {
                    yield $line([(string) $row->key, $row->class, '', '', '', $this->record($row->sourceCells, $row->side === 'source' ? $row->refusal : null), $this->record($row->targetCells, $row->side === 'target' ? $row->refusal : null), (string) $row->sourceLine, (string) $row->targetLine, $row->decision->value]);
                }
            }
        } while (count($rows) === self::PAGE);
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
