<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use App\Rulings\FindingGroup;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Matching\Spill\AtomicFile;
use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;

/**
 * The findings of a run as COPY text, in files of a few seconds' loading each, so that several workers load them and none for long.
 * {@see FindingTables} brings them into PostgreSQL. Where a file ends depends on nothing but the findings: written again it is the same.
 */
final class FindingCopies
{
    private const BYTES = 48 * 1024 * 1024;

    private const BLOCK_BYTES = 131_072;

    /** @var array<string, string> lines of each kind that are not written yet */
    private array $waiting = ['rows' => '', 'cells' => '', 'places' => ''];

    /** @var array<string|int, string> by class, or number of the pattern: how the database knows the group */
    private array $groups = [];

    /** @var array<string, AtomicFile> the file of each kind that is written */
    private array $open = [];

    /** @var array<string, int> bytes of it so far */
    private array $bytes = [];

    /** @var array<string, list<string>> names of the files of each kind */
    private array $names = ['rows' => [], 'cells' => [], 'places' => []];

    private readonly GroupPostingBuilder $places;

    /** @var list<string> */
    private readonly array $partsOfPairs;

    private int $cellSequence = 0;

    /** @var array<string, int> class => rows so far */
    private array $classOrdinals = [];

    /**
     * @param  list<ColumnPair>  $pairs
     * @param  \Closure(string): void  $onFile  told the name of each file that is whole
     */
    public function __construct(
        private readonly int $tallyId,
        private readonly string $folder,
        private readonly FindingIdentity $identity,
        array $pairs,
        private readonly \Closure $onFile,
    ) {
        $this->places = new GroupPostingBuilder;
        $this->partsOfPairs = FindingIdentity::partsOfPairs($pairs);
    }

    public function add(RowFinding $row): void
    {
        $class = $row->class->value;
        $this->classOrdinals[$class] = ($this->classOrdinals[$class] ?? 0) + 1;
        [$identity, $identities] = $this->identity->ofRowAndCells($row, $this->partsOfPairs);
        $this->write('rows', CopyText::line([
            $this->tallyId,
            $this->classOrdinals[$class],
            CopyText::hexadecimal($identity),
            ...array_values(RowFindingColumns::of($row)),
        ]));
        $this->place($this->groups[$class] ??= FindingGroup::ofClass($row->class)->name(), $row->sequence);
        if ($row->cells !== []) {
            $this->addCells($row, $identities);
        }
    }

    /**
     * Millions of them: each line is written as it stands, for only the two values can hold what has to be escaped.
     *
     * @param  list<string>  $identities  of the cells
     */
    private function addCells(RowFinding $row, array $identities): void
    {
        $lines = '';
        foreach ($row->cells as $nth => $cell) {
            $this->place($this->groups[$cell->place->number] ??= FindingGroup::ofPattern($cell->place->number)->name(), $row->sequence);
            $this->cellSequence++;
            $lines .=
                "{$this->tallyId}\t{$this->cellSequence}\t{$row->sequence}\t{$cell->place->number}\t{$cell->place->ordinal}\t".
                "{$cell->pairPosition}\t{$cell->class->value}\t{$cell->cause}\t".
                CopyText::field($cell->source).
                "\t".
                CopyText::field($cell->target).
                "\t\\\\x{$identities[$nth]}\t".
                self::difference($cell->difference).
                "\n";
        }
        $this->write('cells', $lines);
    }

    /** The difference of two numbers, and what it is of the source's. */
    private static function difference(?SignedDifference $difference): string
    {
        return $difference === null ? "\\N\t\\N" : $difference->value->written()."\t".($difference->relative ?? '\N');
    }

    /** Ends the last file of each kind. */
    public function end(): void
    {
        $this->writePlaces($this->places->end());
        foreach (array_keys(array_filter($this->waiting)) as $kind) {
            $this->flush($kind);
        }
        array_map($this->finish(...), array_keys($this->open));
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

    private function place(string $group, int $sequence): void
    {
        $ended = $this->places->add($group, $sequence);
        if ($ended !== []) {
            $this->writePlaces($ended);
        }
    }

    /** @param array<string, GroupPostingBlock> $ended by group */
    private function writePlaces(array $ended): void
    {
        foreach ($ended as $group => $places) {
            $this->write('places', CopyText::line([
                $this->tallyId,
                $places->part,
                $group,
                CopyText::bytes($places->findings),
                CopyText::bytes($places->rows),
            ]));
        }
    }

    private function write(string $kind, string $lines): void
    {
        $this->waiting[$kind] .= $lines;
        if (strlen($this->waiting[$kind]) >= self::BLOCK_BYTES) {
            $this->flush($kind);
        }
    }

    private function flush(string $kind): void
    {
        if (isset($this->open[$kind]) && $this->bytes[$kind] > self::BYTES) {
            $this->finish($kind);
        }
        if (! isset($this->open[$kind])) {
            $name = sprintf('%s-%d', $kind, count($this->names[$kind]));
            $this->open[$kind] = new AtomicFile("{$this->folder}/{$name}");
            $this->names[$kind][] = $name;
            $this->bytes[$kind] = 0;
        }
        $this->bytes[$kind] += strlen($this->waiting[$kind]);
        $this->open[$kind]->write($this->waiting[$kind]);
        $this->waiting[$kind] = '';
    }

    private function finish(string $kind): void
    {
        $this->open[$kind]->finish();
        unset($this->open[$kind]);
        ($this->onFile)($this->names[$kind][count($this->names[$kind]) - 1]);
    }
}
