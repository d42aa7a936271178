<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Findings that need no column to be decided and no words: rows whose every cell has its cause already, and rows without a counterpart.
 * They are most of those of a first tally. What {@see FindingAssembler} counts of a row is counted here without the objects of a
 * {@see \NineTally\Core\Comparison\RowFinding}, which is half of the work of merging.
 */
final readonly class PlainFindings
{
    /**
     * @param  Sides<Reader>  $readers
     * @param  list<ColumnComparison>  $comparisons  by column pair
     * @param  Sides<list<int>>  $positions  of the compared columns, by column pair
     * @param  Sides<list<int>>  $keyPositions
     */
    public function __construct(
        private Sides $readers,
        private array $comparisons,
        private Sides $positions,
        private Sides $keyPositions,
        private PatternCounter $patterns,
        private ValueCounts $values,
        private RowSlices $slices,
        private PlainLines $lines,
    ) {}

    /**
     * @param  int  $linesBefore  what the entry's lines are counted from
     * @return bool whether it is such a finding, and was counted and handed on
     */
    public function take(FindingEntry $entry, int $linesBefore): bool
    {
        return $entry->reason === null && match ($entry->class) {
            RowClass::Changed => $this->isSettled($entry) && $this->takeChanged($entry, $linesBefore),
            RowClass::Missing, RowClass::Extra => $this->takeAlone($entry, $linesBefore),
            default => false,
        };
    }

    private function isSettled(FindingEntry $entry): bool
    {
        foreach ($entry->cells as [, $class, $cause]) {
            // What is blank, or waits for its column, may have moved.
            if ($class !== CellClass::Changed->value || $cause === '') {
                return false;
            }
        }

        return $entry->source !== null && $entry->target !== null;
    }

    private function takeChanged(FindingEntry $entry, int $linesBefore): bool
    {
        $source = explode(Batch::CELL_END, (string) $entry->source);
        $target = explode(Batch::CELL_END, (string) $entry->target);
        $key = $cells = [];
        foreach ($this->keyPositions->source as $position) {
            $key[] = $source[$position];
        }
        foreach ($entry->cells as [$pair, , $cause, $facts]) {
            $sourceCell = $source[$this->positions->source[$pair]];
            $targetCell = $target[$this->positions->target[$pair]];
            $difference = $this->comparisons[$pair]->difference($sourceCell, $targetCell, $cause);
            $this->patterns->count($pair, CellClass::Changed, $cause, $facts, $sourceCell, $targetCell, $difference);
            $cells[] = [$pair, $cause, $sourceCell, $targetCell, $difference?->value->written() ?? ''];
        }
        $this->slices->count(
            RowClass::Changed,
            $this->readers->source->place($linesBefore + $entry->line)->part,
            $this->readers->target->place($entry->targetLine)->part,
            $entry->isBridged,
        );
        $this->lines->changed($key, $cells);

        return true;
    }

    private function takeAlone(FindingEntry $entry, int $linesBefore): bool
    {
        $side = $entry->class === RowClass::Missing ? Side::Source : Side::Target;
        $row = $side === Side::Source ? $entry->source : $entry->target;
        if ($row === null || ! $this->values->seeWithoutBlank($side, $row)) {
            return false;
        }
        $place = $this->readers->of($side)->place($linesBefore + $entry->line);
        $isSource = $side === Side::Source;
        $this->slices->count($entry->class, $isSource ? $place->part : null, $isSource ? null : $place->part, $entry->isBridged);
        $this->lines->alone($entry->class, $place->part, $place->line, $row);

        return true;
    }
}
