<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\LeftOutRow;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\ForgivenPostings;
use NineTally\Core\Tally\PlainLines;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Wording\Sentences;

/**
 * Writes the findings of a tally as CSV files and its figures as JSON: UTF-8, comma, RFC 4180 quotes, LF.
 */
final class FindingFiles implements PlainLines
{
    /** @var list<string> the source's columns, then those that only the target has */
    private readonly array $unitedNames;

    /** @var list<string> by column pair */
    private readonly array $sourceNames;

    private readonly FindingHeaders $headers;

    private readonly Sentences $sentences;

    /** @var Sides<list<int>> */
    private readonly Sides $keyPositions;

    private function __construct(
        private readonly WholeFiles $files,
        private readonly Plan $plan,
        Columns $source,
        private readonly Columns $target,
    ) {
        $this->sentences = new Sentences;
        $this->keyPositions = new Sides(
            $source->positionsOf($plan->keyNames(Side::Source)),
            $target->positionsOf($plan->keyNames(Side::Target)),
        );
        $this->headers = new FindingHeaders($plan, $source, $target);
        $this->unitedNames = $this->headers->unitedNames;
        $this->sourceNames = array_map(static fn(ColumnPair $pair): string => $pair->source, $plan->columnPairs);
    }

    public static function in(string $folder, Plan $plan, Columns $source, Columns $target, bool $listsForgiven = false): self
    {
        if (! is_dir($folder) && ! @mkdir($folder, 0777, true)) {
            throw UnwritableFolder::at($folder);
        }
        $files = new self(new WholeFiles($folder), $plan, $source, $target);
        foreach ($files->headers->all($listsForgiven) as $name => $header) {
            $files->files->open($name, $header);
        }

        return $files;
    }

    /** Lines of a slice of the findings, without headers: {@see append()} puts them together. */
    public static function part(string $folder, Plan $plan, Columns $source, Columns $target, bool $listsForgiven): self
    {
        is_dir($folder) || @mkdir($folder, 0700) || throw UnwritableFolder::at($folder);
        $files = new self(new WholeFiles($folder), $plan, $source, $target);
        foreach (array_keys($files->headers->ofFindings($listsForgiven)) as $name) {
            $files->files->open($name);
        }

        return $files;
    }

    public function finishPart(): void
    {
        $this->files->finish();
    }

    /** The lines of a slice behind those that stand there. */
    public function append(string $folder): void
    {
        foreach (glob("{$folder}/*.csv") ?: [] as $path) {
            $this->files->addFile(basename($path), $path);
            unlink($path);
        }
    }

    public function add(RowFinding $row): void
    {
        if ($this->files->has('forgiven.csv')) {
            $this->addForgivenKey($row);
            $this->addCells('forgiven.csv', $row, $row->forgiven);
        }
        match ($row->class) {
            RowClass::Changed => $this->addCells('differences.csv', $row, $row->cells),
            RowClass::Missing, RowClass::Extra => $this->files->addLine($row->class->value.'.csv', [
                ...$this->place($row->record()),
                $row->reason === null ? '' : $this->sentences->reason($row->reason, $row->reasonFacts),
                ...$row->record()->cells ?? [],
            ]),
            RowClass::Repeated => $this->files->addLine('repeated.csv', [
                (string) $row->side?->value,
                ...$this->place($row->record()),
                $row->kept->part ?? '',
                $row->kept->line ?? '',
                $row->kept === null ? '' : ($row->reason === RowReason::Undecided ? 'no' : 'yes'),
                $row->rowsOfKey['source'],
                $row->rowsOfKey['target'],
                ...$this->united($row),
            ]),
            RowClass::Unkeyed => $this->files->addLine('unkeyed.csv', [
                (string) $row->side?->value,
                ...$this->place($row->record()),
                ...$this->united($row),
            ]),
            RowClass::Refused => $this->files->addLine('refused.csv', [
                (string) $row->side?->value,
                $row->refused->part ?? 1,
                $row->refused->line ?? 0,
                $row->refused->reason->value ?? '',
                $row->refused === null ? '' : $this->sentences->refusal($row->refused->reason, $row->refused->facts),
                $row->refused?->readableRaw() ?? '',
            ]),
            // A row that agrees is passed on only for what it was forgiven.
            RowClass::Agreed => null,
        };
    }

    public function changed(array $key, array $cells): void
    {
        $keyText = implode(',', $key);
        $separators = count($key) + 5;
        $lines = '';
        foreach ($cells as [$pair, $cause, $source, $target, $difference]) {
            $line = "{$keyText},{$this->sourceNames[$pair]},changed,{$cause},{$source},{$target},{$difference}";
            $lines .=
                strpbrk($line, "\"\r\n") === false && substr_count($line, ',') === $separators
                    ? "{$line}\n"
                    : CsvLine::of([...$key, $this->sourceNames[$pair], CellClass::Changed->value, $cause, $source, $target, $difference]);
        }
        $this->files->add('differences.csv', $lines);
    }

    public function alone(RowClass $class, int $part, int $line, string $row): void
    {
        $this->files->add(
            "{$class->value}.csv",
            strpbrk($row, ",\"\r\n") === false
                ? "{$part},{$line},,".strtr($row, Batch::CELL_END, ',')."\n"
                : CsvLine::of([$part, $line, '', ...explode(Batch::CELL_END, $row)]),
        );
    }

    /** @return array{int, int} */
    private function place(?RowRecord $record): array
    {
        return [$record->part ?? 1, $record->line ?? 0];
    }

    /** In which rows the forgiven cells stand: the lists, and an index that says what each of them is about. */
    public function post(ForgivenPostings $postings, string $path): void
    {
        $this->files->open('forgiven-postings.json');
        $this->files->add('forgiven-postings.json', $this->json($postings->toArray()));
        $this->files->open('forgiven.postings');
        $this->files->addFile('forgiven.postings', $path);
    }

    /** @param Sides<Reader> $readers whose steps left rows out: those, as they came into the step, under all columns that steps had */
    public function leaveOut(Sides $readers): void
    {
        $names = $this->unitedNames;
        foreach ($readers->both() as $reader) {
            foreach ($reader instanceof PreparedReader ? $reader->ledger->steps : [] as $step) {
                $names = $step['figures']['leftOut'] === 0 ? $names : [...$names, ...array_diff($step['columns'], $names)];
            }
        }
        if ($names !== $this->unitedNames) {
            $this->files->beginAnew('left-out.csv', [...FindingHeaders::LEFT_OUT, ...$names]);
        }
        foreach ($readers->named() as $side => $reader) {
            if (! $reader instanceof PreparedReader) {
                continue;
            }
            $columns = array_column($reader->ledger->steps, 'columns', 'number');
            $sentences = array_column($reader->ledger->steps, 'sentence', 'number');
            $steps = $this->plan->side(Side::from($side))->preparation->working();
            $rows = iterator_to_array($reader->side()->leftOut(), false);
            usort($rows, static fn(LeftOutRow $one, LeftOutRow $other): int => $one->packedPlace <=> $other->packedPlace);
            foreach ($rows as $row) {
                $byName = array_combine(array_reverse($columns[$row->step]), array_reverse($row->cells));
                $this->files->addLine('left-out.csv', [
                    $side,
                    $row->place()->part,
                    $row->place()->line,
                    $row->step,
                    $sentences[$row->step],
                    $steps[$row->step]['reason'] ?? '',
                    $steps[$row->step]['answersFor'] ?? '',
                    ...array_map(static fn(string $name): string => $byName[$name] ?? '', $names),
                ]);
            }
        }
    }

    /** @return list<string> the names of the files */
    public function finish(Summary $summary): array
    {
        foreach (
            $this->files->has('without-entry.csv') ? $summary->reports->withoutEntry : []
            as ['source' => $source, 'target' => $target, 'values' => $values]
        ) {
            foreach ($values ?? [] as $value => $cells) {
                $this->files->addLine('without-entry.csv', [$source, $target, (string) $value, $cells]);
            }
        }
        foreach ($summary->reports->records as $report) {
            foreach ($report->missing() as ['kind' => $kind, 'values' => $values, 'rows' => $rows]) {
                $side = $kind === 'source' ? 'source' : 'target';
                $cells = array_pad($values, $this->headers->widestRecord(), '');
                $this->files->addLine('without-record.csv', [$report->rule->in, $side, $kind, $rows, ...$cells]);
            }
        }
        $this->files->open('summary.json');
        $this->files->add('summary.json', $this->json($summary->toArray()));

        return $this->files->finish();
    }

    /** @param array<array-key, mixed> $document */
    private function json(array $document): string
    {
        return json_encode($document, JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n";
    }

    /** @param list<CellFinding> $cells */
    private function addCells(string $file, RowFinding $row, array $cells): void
    {
        foreach ($cells as $cell) {
            $this->files->addLine($file, [
                ...$row->deliveredKey->cells ?? [],
                $this->plan->columnPairs[$cell->pairPosition]->source,
                $cell->class->value,
                $cell->cause,
                $cell->source,
                $cell->target,
                $cell->difference?->value->written() ?? '',
            ]);
        }
    }

    /** What the key lets pass stands before the cells of the same row. */
    private function addForgivenKey(RowFinding $row): void
    {
        foreach ($row->keyForgiven as $position => $cause) {
            $column = $this->plan->key[$position];
            $this->files->addLine('forgiven.csv', [
                ...$row->deliveredKey->cells ?? [],
                $column->source,
                CellClass::Forgiven->value,
                $cause,
                $row->source->cells[$this->keyPositions->source[$position]] ?? '',
                $row->target->cells[$this->keyPositions->target[$position]] ?? '',
                '',
            ]);
        }
    }

    /** @return list<string> the cells of a row under the columns of both sides */
    private function united(RowFinding $row): array
    {
        $cells = $row->record()->cells ?? [];
        if ($row->side === Side::Source) {
            return array_pad($cells, count($this->unitedNames), '');
        }
        // A name that stands twice is given by its first column.
        $byName = array_combine(array_reverse($this->target->names), array_reverse($cells));

        return array_map(static fn(string $name): string => $byName[$name] ?? '', $this->unitedNames);
    }
}
