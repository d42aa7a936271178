<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use App\Rulings\FindingGroup;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;

/**
 * The findings of a run as COPY text, in files of a few seconds' loading each, so that several workers load them and none for long.
 * {@see FindingTables} brings them into PostgreSQL.
 */
final class FindingFiles
{
    private const BYTES = 48 * 1024 * 1024;

    /** @var array<string, resource> the file of each kind that is written */
    private array $open = [];

    /** @var array<string, int> bytes of it so far */
    private array $bytes = [];

    /** @var array<string, list<string>> names of the files of each kind */
    private array $names = ['rows' => [], 'cells' => [], 'places' => []];

    private readonly GroupPostingBuilder $places;

    private int $cellSequence = 0;

    /** @var array<string, int> class => rows so far */
    private array $classOrdinals = [];

    /** @param list<ColumnPair> $pairs */
    public function __construct(
        private readonly int $tallyId,
        private readonly string $folder,
        private readonly FindingIdentity $identity,
        private readonly array $pairs,
    ) {
        $this->places = new GroupPostingBuilder;
    }

    public function add(RowFinding $row): void
    {
        $class = $row->class->value;
        $this->classOrdinals[$class] = ($this->classOrdinals[$class] ?? 0) + 1;
        $this->write('rows', [
            $this->tallyId,
            $this->classOrdinals[$class],
            CopyText::hexadecimal($this->identity->ofRow($row)),
            ...array_values(RowFindingColumns::of($row)),
        ]);
        $this->writePlaces($this->places->add(FindingGroup::ofClass($row->class)->name(), $row->sequence));
        foreach ($row->cells as $cell) {
            $this->writePlaces($this->places->add(FindingGroup::ofPattern($cell->pattern)->name(), $row->sequence));
            $this->write('cells', [
                $this->tallyId,
                ++$this->cellSequence,
                $row->sequence,
                $cell->pattern,
                $cell->ordinalInPattern,
                $cell->pairPosition,
                $cell->class->value,
                $cell->cause,
                $cell->source,
                $cell->target,
                CopyText::hexadecimal($this->identity->ofCell($row, $this->pairs[$cell->pairPosition])),
            ]);
        }
    }

    /** Ends the last file of each kind. */
    public function end(): void
    {
        $this->writePlaces($this->places->end());
        foreach ($this->open as $file) {
            fclose($file) || throw self::isFull();
        }
    }

    /** @return array<string, list<string>> names of the files of each kind: rows, cells, places */
    public function names(): array
    {
        return $this->names;
    }

    /** @return array<string, int> rows by class */
    public function rowsByClass(): array
    {
        return $this->classOrdinals;
    }

    /** @param array<string, GroupPostingBlock> $ended by group */
    private function writePlaces(array $ended): void
    {
        foreach ($ended as $group => $places) {
            $this->write('places', [
                $this->tallyId,
                $places->part,
                $group,
                CopyText::bytes($places->findings),
                CopyText::bytes($places->rows),
            ]);
        }
    }

    /** @param list<string|int|null> $fields */
    private function write(string $kind, array $fields): void
    {
        $line = CopyText::line($fields);
        if (! isset($this->open[$kind]) || $this->bytes[$kind] > self::BYTES) {
            $this->begin($kind);
        }
        $this->bytes[$kind] += strlen($line);
        if (fwrite($this->open[$kind], $line) !== strlen($line)) {
            throw self::isFull();
        }
    }

    private function begin(string $kind): void
    {
        if (isset($this->open[$kind])) {
            fclose($this->open[$kind]) || throw self::isFull();
        }
        $name = sprintf('%s-%d', $kind, count($this->names[$kind]));
        $this->open[$kind] = @fopen("{$this->folder}/{$name}", 'wb') ?: throw self::isFull();
        $this->names[$kind][] = $name;
        $this->bytes[$kind] = 0;
    }

    private static function isFull(): \RuntimeException
    {
        return new \RuntimeException('The storage could not be written; the disk may be full.');
    }
}
