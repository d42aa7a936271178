<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\LeftOutRow;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\ForgivenPostings;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Wording\Sentences;

/**
 * Writes the findings of a tally as CSV files and its figures as JSON: UTF-8, comma, RFC 4180 quotes, LF.
 *
 * The files are written aside and get their names when all are whole, so a folder never holds half a result.
 */
final class FindingFiles
{
    private const ENDING = '.unfinished';

    /** Before the cells of a row that a step left out: where it was delivered, which step, and why. */
    private const LEFT_OUT = ['side', 'part', 'line', 'step', 'what the step does', 'reason', 'who answers for it'];

    private const BUFFER_BYTES = 65_536;

    /** @var array<string, resource> */
    private array $files = [];

    /** @var array<string, string> by file: lines that are still to be written */
    private array $buffers = [];

    /** @var list<string> the source's columns, then those that only the target has */
    private readonly array $unitedNames;

    private readonly Sentences $sentences;

    private function __construct(
        private readonly string $folder,
        private readonly Plan $plan,
        Columns $source,
        private readonly Columns $target,
    ) {
        $this->sentences = new Sentences;
        $this->unitedNames = [
            ...$source->names,
            ...array_values(array_filter($target->names, static fn(string $name): bool => ! $source->has($name))),
        ];
    }

    public static function in(string $folder, Plan $plan, Columns $source, Columns $target, bool $listsForgiven = false): self
    {
        if (! is_dir($folder) && ! @mkdir($folder, 0777, true)) {
            throw UnwritableFolder::at($folder);
        }
        $files = new self($folder, $plan, $source, $target);
        $files->open('differences.csv', self::cellHeader($plan));
        $files->open('missing.csv', ['part', 'line', 'reason', ...$source->names]);
        $files->open('extra.csv', ['part', 'line', 'reason', ...$target->names]);
        $files->open('repeated.csv', [
            'side',
            'part',
            'line',
            'kept part',
            'kept line',
            'decided',
            'source rows',
            'target rows',
            ...$files->unitedNames,
        ]);
        $files->open('unkeyed.csv', ['side', 'part', 'line', ...$files->unitedNames]);
        if (array_filter($plan->columnPairs, static fn(ColumnPair $pair): bool => $pair->crosswalk !== []) !== []) {
            $files->open('without-entry.csv', ['source', 'target', 'value', 'cells']);
        }
        $files->open('left-out.csv', [...self::LEFT_OUT, ...$files->unitedNames]);
        $files->open('refused.csv', ['side', 'part', 'line', 'reason', 'what is wrong', 'raw']);
        if ($listsForgiven) {
            $files->open('forgiven.csv', self::cellHeader($plan));
        }

        return $files;
    }

    public function add(RowFinding $row): void
    {
        if ($row->forgiven !== [] && isset($this->files['forgiven.csv'])) {
            $this->addCells('forgiven.csv', $row, $row->forgiven);
        }
        match ($row->class) {
            RowClass::Changed => $this->addCells('differences.csv', $row, $row->cells),
            RowClass::Missing, RowClass::Extra => $this->write($row->class->value.'.csv', [
                ...$this->place($row->record()),
                $row->reason === null ? '' : $this->sentences->reason($row->reason, $row->reasonFacts),
                ...$row->record()->cells ?? [],
            ]),
            RowClass::Repeated => $this->write('repeated.csv', [
                (string) $row->side?->value,
                ...$this->place($row->record()),
                $row->kept->part ?? '',
                $row->kept->line ?? '',
                $row->kept === null ? '' : ($row->reason === null ? 'yes' : 'no'),
                $row->rowsOfKey['source'],
                $row->rowsOfKey['target'],
                ...$this->united($row),
            ]),
            RowClass::Unkeyed => $this->write('unkeyed.csv', [
                (string) $row->side?->value,
                ...$this->place($row->record()),
                ...$this->united($row),
            ]),
            RowClass::Refused => $this->write('refused.csv', [
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

    /** @return array{int, int} */
    private function place(?RowRecord $record): array
    {
        return [$record->part ?? 1, $record->line ?? 0];
    }

    /** In which rows the forgiven cells stand: the lists, and an index that says what each of them is about. */
    public function post(ForgivenPostings $postings, string $path): void
    {
        $this->open('forgiven-postings.json', null);
        $this->buffers['forgiven-postings.json'] =
            json_encode($postings->toArray(), JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES).
            "\n";
        $this->open('forgiven.postings', null);
        $lists = fopen($path, 'rb');
        if ($lists === false || @stream_copy_to_stream($lists, $this->files['forgiven.postings']) !== filesize($path)) {
            throw UnwritableFolder::at($this->folder);
        }
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
            ftruncate($this->files['left-out.csv'], 0);
            $this->buffers['left-out.csv'] = '';
            $this->write('left-out.csv', [...self::LEFT_OUT, ...$names]);
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
                $this->write('left-out.csv', [
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
            isset($this->files['without-entry.csv']) ? $summary->withoutEntry : []
            as ['source' => $source, 'target' => $target, 'values' => $values]
        ) {
            foreach ($values ?? [] as $value => $cells) {
                $this->write('without-entry.csv', [$source, $target, (string) $value, $cells]);
            }
        }
        $this->open('summary.json', null);
        fwrite(
            $this->files['summary.json'],
            json_encode($summary->toArray(), JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES).
                "\n",
        );
        foreach ($this->files as $name => $file) {
            $this->flush($name);
            if (! fflush($file) || ! fclose($file) || ! rename($this->path($name).self::ENDING, $this->path($name))) {
                throw UnwritableFolder::at($this->folder);
            }
        }
        $names = array_keys($this->files);
        $this->files = [];

        return $names;
    }

    /** Removes what was begun and not finished. */
    public function __destruct()
    {
        foreach ($this->files as $name => $file) {
            fclose($file);
            unlink($this->path($name).self::ENDING);
        }
    }

    /** @return list<string> */
    private static function cellHeader(Plan $plan): array
    {
        return [...$plan->keyNames(Side::Source), 'column', 'class', 'cause', 'source', 'target'];
    }

    /** @param list<CellFinding> $cells */
    private function addCells(string $file, RowFinding $row, array $cells): void
    {
        foreach ($cells as $cell) {
            $this->write($file, [
                ...$row->deliveredKey->cells ?? [],
                $this->plan->columnPairs[$cell->pairPosition]->source,
                $cell->class->value,
                $cell->cause,
                $cell->source,
                $cell->target,
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

    /** @param list<string>|null $header */
    private function open(string $name, ?array $header): void
    {
        $file = @fopen($this->path($name).self::ENDING, 'wb');
        if ($file === false) {
            throw UnwritableFolder::at($this->folder);
        }
        $this->files[$name] = $file;
        $this->buffers[$name] = '';
        if ($header !== null) {
            $this->write($name, $header);
        }
    }

    /** @param list<string|int> $cells */
    private function write(string $name, array $cells): void
    {
        $this->buffers[$name] .= CsvLine::of($cells);
        if (strlen($this->buffers[$name]) >= self::BUFFER_BYTES) {
            $this->flush($name);
        }
    }

    private function flush(string $name): void
    {
        if (@fwrite($this->files[$name], $this->buffers[$name]) !== strlen($this->buffers[$name])) {
            throw UnwritableFolder::at($this->folder);
        }
        $this->buffers[$name] = '';
    }

    private function path(string $name): string
    {
        return "{$this->folder}/{$name}";
    }
}
