<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Tally;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Report\CsvLine;
use NineTally\Core\Row\Side;
use NineTally\Core\Wording\Sentences;

/** The findings of a filter to be taken away, streamed in source order. A row is a line; of a changed row each cell is. */
final readonly class FindingsExport
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
        return [
            'key: '.implode(', ', $tally->planVersion->plan()->keyNames(Side::Source)),
            'row', 'column', 'cell', 'cause', 'source', 'target', 'source line', 'target line', 'ruling',
        ];
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
                $sequence = $finding instanceof RulableCell ? $finding->sequence : $finding->finding->sequence;
                $read++;
                if ($finding instanceof RulableCell) {
                    yield $read => $this->cell($finding, $columns);

                    continue;
                }
                foreach ($cells[$sequence] ?? [] as $cell) {
                    yield $read => $this->cell($cell, $columns);
                }
                if ($finding->finding->class !== RowClass::Changed) {
                    yield $read => $this->row($finding);
                }
            }
        } while (count($findings) === self::PAGE);
    }

    /**
     * @param  list<RulableRow>|list<RulableCell>  $findings
     * @return array<int, list<RulableCell>> by the sequence of the row
     */
    private function cellsOfChanged(Tally $tally, Mask $mask, array $findings): array
    {
        $changed = [];
        foreach ($findings as $finding) {
            if ($finding instanceof RulableRow && $finding->finding->class === RowClass::Changed) {
                $changed[] = $finding->finding->sequence;
            }
        }

        return $changed === [] ? [] : $this->pages->cellsOfRows($tally, $mask, $changed[0], $changed[count($changed) - 1]);
    }

    /**
     * @param  list<string>  $columns  of the source, by the place of their pair
     * @return list<string>
     */
    private function cell(RulableCell $cell, array $columns): array
    {
        $found = $cell->finding;

        return [
            (string) $cell->key?->asCsv(),
            RowClass::Changed->value,
            $columns[$found->pairPosition],
            $found->class->value,
            $found->cause,
            $found->source,
            $found->target,
            (string) $cell->sourceLine,
            (string) $cell->targetLine,
            $cell->standing->decision->value,
        ];
    }

    /** @return list<string> */
    private function row(RulableRow $rulable): array
    {
        $row = $rulable->finding;

        return [
            (string) $row->deliveredKey?->asCsv(),
            $row->class->value,
            '',
            '',
            '',
            $this->record($row, Side::Source),
            $this->record($row, Side::Target),
            (string) $row->placeOn(Side::Source)?->line,
            (string) $row->placeOn(Side::Target)?->line,
            $rulable->standing->decision->value,
        ];
    }

    /** A whole row as one RFC 4180 record inside its cell; of a refused record what is wrong with it, and its text. */
    private function record(RowFinding $row, Side $side): string
    {
        $record = $side === Side::Source ? $row->source : $row->target;
        $refused = $row->side === $side ? $row->refused : null;

        return match (true) {
            $record !== null => rtrim(CsvLine::of($record->cells), "\n"),
            $refused !== null => (new Sentences)->refusal($refused->reason, $refused->facts)."\n".$refused->raw,
            default => '',
        };
    }
}
