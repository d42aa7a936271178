<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use App\Rulings\FindingGroup;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\FindingIdentity;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Ruling\GroupPostingBlock;
use NineTally\Core\Ruling\GroupPostingBuilder;

/**
 * Brings the findings of a run into PostgreSQL: written as COPY text while the engine yields them, then loaded into
 * tables of the run's own, which no screen sees until the tally is entered.
 */
final class FindingTables
{
    private const PLACE_COLUMNS = 'tally_id,part,"group",findings,rows';

    private const CELL_COLUMNS = 'tally_id,sequence,row_sequence,pattern_number,pattern_ordinal,'.
        'pair_position,class,cause,source_value,target_value,identity';

    /** @var resource */
    private $rows;

    /** @var resource */
    private $cells;

    /** @var resource */
    private $placed;

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
        private readonly int $keyColumns,
    ) {
        $this->rows = $this->create('rows.copy');
        $this->cells = $this->create('cells.copy');
        $this->placed = $this->create('places.copy');
        $this->places = new GroupPostingBuilder;
    }

    public function add(RowFinding $row): void
    {
        $class = $row->class->value;
        $this->classOrdinals[$class] = ($this->classOrdinals[$class] ?? 0) + 1;
        $this->write($this->rows, [
            $this->tallyId,
            $this->classOrdinals[$class],
            CopyText::hexadecimal($this->identity->ofRow($row)),
            ...array_values(RowFindingColumns::of($row)),
        ]);
        $this->writePlaces($this->places->add(FindingGroup::ofClass($row->class)->name(), $row->sequence));
        foreach ($row->cells as $cell) {
            $this->writePlaces($this->places->add(FindingGroup::ofPattern($cell->pattern)->name(), $row->sequence));
            $this->write($this->cells, [
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

    /** @return array<string, int> rows by class */
    public function rowsByClass(): array
    {
        return $this->classOrdinals;
    }

    /** @param callable(): void $betweenSteps a sign of life */
    public function load(Connection $database, callable $betweenSteps): void
    {
        $this->writePlaces($this->places->end());
        array_map(fclose(...), [$this->rows, $this->cells, $this->placed]);
        $database->statement('SELECT open_findings(?)', [$this->tallyId]);
        foreach (
            ['row' => implode(',', ['tally_id', 'class_ordinal', 'identity', ...RowFindingColumns::names()]), 'cell' => self::CELL_COLUMNS]
            as $kind => $columns
        ) {
            $betweenSteps();
            $this->copy($database, "{$kind}_findings_{$this->tallyId}", "{$this->folder}/{$kind}s.copy", $columns, $betweenSteps);
        }
        $betweenSteps();
        $database->statement('SELECT index_findings(?, ?)', [$this->tallyId, $this->keyColumns]);
    }

    /** Where the findings of each group stand, in a table that all tallies share: so within the transaction that enters this one. */
    public function enterPlaces(Connection $database): void
    {
        $this->copy($database, 'group_places', "{$this->folder}/places.copy", self::PLACE_COLUMNS, static function (): void {});
    }

    /** @param array<string, GroupPostingBlock> $ended by group */
    private function writePlaces(array $ended): void
    {
        foreach ($ended as $group => $places) {
            $this->write($this->placed, [
                $this->tallyId,
                $places->part,
                $group,
                CopyText::bytes($places->findings),
                CopyText::bytes($places->rows),
            ]);
        }
    }

    /** In slices, so that a large load gives signs of life and can be cancelled. */
    private function copy(Connection $database, string $table, string $path, string $columns, callable $betweenSlices): void
    {
        $file = fopen($path, 'rb') ?: throw new \RuntimeException('A working file is gone.');
        try {
            $slice = [];
            while (($line = fgets($file)) !== false) {
                $slice[] = $line;
                if (count($slice) === 20_000) {
                    $this->copySlice($database, $table, $slice, $columns);
                    $slice = [];
                    $betweenSlices();
                }
            }
            if ($slice !== []) {
                $this->copySlice($database, $table, $slice, $columns);
            }
        } finally {
            fclose($file);
        }
    }

    /** @param list<string> $lines */
    private function copySlice(Connection $database, string $table, array $lines, string $columns): void
    {
        CopyText::into($database, $table, $columns, $lines);
    }

    /** @return resource */
    private function create(string $name)
    {
        return fopen("{$this->folder}/{$name}", 'wb') ?:
            throw new \RuntimeException('The storage could not be written; the disk may be full.');
    }

    /**
     * @param  resource  $file
     * @param  list<string|int|null>  $fields
     */
    private function write($file, array $fields): void
    {
        $line = CopyText::line($fields);
        if (fwrite($file, $line) !== strlen($line)) {
            throw new \RuntimeException('The storage could not be written; the disk may be full.');
        }
    }
}
