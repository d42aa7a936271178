<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Shape\LeftOutRow;
use NineTally\Core\Shape\ShapedReader;
use NineTally\Core\Tally\Summary;

/**
 * Writes the findings of a tally as CSV files and its figures as JSON: UTF-8, comma, RFC 4180 quotes, LF.
 *
 * The files are written aside and get their names when all are whole, so a folder never holds half a result.
 */
final class FindingFiles
{
    private const ENDING = '.unfinished';

    /** Before the cells of a row that a step left out: where it was delivered, which step, and why. */
    private const LEFT_OUT = ['side', 'line', 'step', 'what the step does', 'reason', 'who answers for it'];

    private const BUFFER_BYTES = 65_536;

    /** @var array<string, resource> */
    private array $files = [];

    /** @var array<string, string> by file: lines that are still to be written */
    private array $buffers = [];

    /** @var list<string> the source's columns, then those that only the target has */
    private readonly array $unitedNames;

    private function __construct(private readonly string $folder, private readonly Plan $plan, Columns $source, private readonly Columns $target)
    {
        $this->unitedNames = [...$source->names, ...array_values(array_filter($target->names, static fn(string $name): bool => ! $source->has($name)))];
    }

    public static function in(string $folder, Plan $plan, Columns $source, Columns $target, bool $listsForgiven = false): self
    {
        if (! is_dir($folder) && ! @mkdir($folder, 0777, true)) {
            throw UnwritableFolder::at($folder);
        }
        $files = new self($folder, $plan, $source, $target);
        $files->open('differences.csv', self::cellHeader($plan));
        $files->open('missing.csv', $source->names);
        $files->open('extra.csv', $target->names);
        foreach (['repeated.csv', 'unkeyed.csv'] as $name) {
            $files->open($name, ['side', 'line', ...$files->unitedNames]);
        }
        $files->open('left-out.csv', [...self::LEFT_OUT, ...$files->unitedNames]);
        $files->open('refused.csv', ['side', 'line', 'reason', 'raw']);
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
            RowClass::Missing => $this->write('missing.csv', $row->source->cells ?? []),
            RowClass::Extra => $this->write('extra.csv', $row->target->cells ?? []),
            RowClass::Repeated, RowClass::Unkeyed => $this->write($row->class->value.'.csv', [(string) $row->side?->value, $row->record()->line ?? 0, ...$this->united($row)]),
            RowClass::Refused => $this->write('refused.csv', [(string) $row->side?->value, $row->refused->line ?? 0, $row->refused->sentence ?? '', $row->refused?->readableRaw() ?? '']),
            // A row that agrees is passed on only for what it was forgiven.
            RowClass::Agreed => null,
        };
    }

    /** Rows that steps left out, as they came into the step, under the columns of both sides and what else the steps had. */
    public function leaveOut(Reader $source, Reader $target): void
    {
        $names = $this->unitedNames;
        foreach ([$source, $target] as $reader) {
            foreach ($reader instanceof ShapedReader ? $reader->ledger->steps : [] as $step) {
                $names = $step['figures']['leftOut'] === 0 ? $names : [...$names, ...array_diff($step['columns'], $names)];
            }
        }
        if ($names !== $this->unitedNames) {
            ftruncate($this->files['left-out.csv'], 0);
            $this->buffers['left-out.csv'] = '';
            $this->write('left-out.csv', [...self::LEFT_OUT, ...$names]);
        }
        foreach ([Side::Source->value => $source, Side::Target->value => $target] as $side => $reader) {
            if (! $reader instanceof ShapedReader) {
                continue;
            }
            $columns = array_column($reader->ledger->steps, 'columns', 'number');
            $sentences = array_column($reader->ledger->steps, 'sentence', 'number');
            $steps = $this->plan->side(Side::from($side))->shape->working();
            $rows = iterator_to_array($reader->side()->leftOut(), false);
            usort($rows, static fn(LeftOutRow $one, LeftOutRow $other): int => $one->origin <=> $other->origin);
            foreach ($rows as $row) {
                $byName = array_combine(array_reverse($columns[$row->step]), array_reverse($row->cells));
                $this->write('left-out.csv', [$side, $row->place()->line, $row->step, $sentences[$row->step], $steps[$row->step]['reason'] ?? '', $steps[$row->step]['answersFor'] ?? '', ...array_map(static fn(string $name): string => $byName[$name] ?? '', $names)]);
            }
        }
    }

    /** @return list<string> the names of the files */
    public function finish(Summary $summary): array
    {
        $this->open('summary.json', null);
        fwrite($this->files['summary.json'], json_encode($summary->toArray(), JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n");
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
            $this->write($file, [...$row->deliveredKey->cells ?? [], $this->plan->columnPairs[$cell->pairPosition]->source, $cell->class->value, $cell->cause, $cell->source, $cell->target]);
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
