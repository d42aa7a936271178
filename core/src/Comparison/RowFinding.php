<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;

/**
 * A row that did not agree, with the record of both sides and the cells that differ: from the engine to the screen.
 *
 * Where it is read again from where it was kept, its cells are read apart, and its canonical key is not known any more.
 */
final readonly class RowFinding
{
    public int $differingCells;

    /**
     * @param  int  $sequence  place in the order of the findings, from 1; 0 for a row that agrees and is passed on for what it was forgiven
     * @param  int  $ordinal  among the rows of this key and side; of an unkeyed or refused row: among equal bytes; 0 where it is not known
     * @param  KeyTuple|null  $key  canonical: with what the key forgives taken away; null when the row was refused
     * @param  Side|null  $side  null when both sides met
     * @param  array{source: int, target: int}  $rowsOfKey  how many rows have this key on each side
     * @param  list<CellFinding>  $cells  of a changed row, in the column order of the plan
     * @param  list<CellFinding>  $forgiven  cells that a rule let pass, where they are asked for
     * @param  RecordPlace|null  $kept  of a repeated row that was not kept: where the one that was kept stands
     * @param  RowReason|null  $reason  why it is in its class, where that is known
     * @param  array<string, string|int>  $reasonFacts  as the reason names them
     * @param  KeyTuple|null  $deliveredKey  the key as the source delivered it, or the only side that has it
     * @param  int|null  $differing  how many cells differ, where the cells themselves are not at hand
     * @param  array<int, string>  $keyForgiven  by column of the key: the cause that it lets pass, where that is asked for
     */
    public function __construct(
        public int $sequence,
        public int $ordinal,
        public RowClass $class,
        public ?Side $side,
        public ?KeyTuple $key,
        public ?RowRecord $source = null,
        public ?RowRecord $target = null,
        public array $rowsOfKey = ['source' => 0, 'target' => 0],
        public array $cells = [],
        public ?RefusedRecord $refused = null,
        public array $forgiven = [],
        public ?RecordPlace $kept = null,
        public ?RowReason $reason = null,
        public array $reasonFacts = [],
        public bool $isBridged = false,
        public ?KeyTuple $deliveredKey = null,
        ?int $differing = null,
        public array $keyForgiven = [],
    ) {
        $this->differingCells = $differing ?? count($cells);
    }

    /** The same row as somebody is shown it, who may not see all of its values. */
    public function shownAs(?KeyTuple $deliveredKey, ?RowRecord $source, ?RowRecord $target, ?RefusedRecord $refused): self
    {
        return new self(
            $this->sequence,
            $this->ordinal,
            $this->class,
            $this->side,
            null,
            $source,
            $target,
            $this->rowsOfKey,
            kept: $this->kept,
            refused: $refused,
            reason: $this->reason,
            reasonFacts: array_diff_key($this->reasonFacts, ['does' => true]),
            isBridged: $this->isBridged,
            deliveredKey: $deliveredKey,
            differing: $this->differingCells,
        );
    }

    /** Where its record stands on a side; null where that side has none. */
    public function placeOn(Side $side): ?RecordPlace
    {
        $record = ($side === Side::Source ? $this->source : $this->target) ?? ($this->side === $side ? $this->refused : null);

        return $record === null ? null : new RecordPlace($record->part, $record->line);
    }

    /** The record of the only side that has one, of a changed row the source's. */
    public function record(): ?RowRecord
    {
        return $this->source ?? $this->target;
    }
}
