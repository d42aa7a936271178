<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;

/** A row that did not agree, with the record of both sides and the cells that differ. */
final readonly class RowFinding
{
    /**
     * @param  int  $sequence  place in the order of the findings, from 1; 0 for a row that agrees and is passed on for what it was forgiven
     * @param  int  $ordinal  among the rows of this key and side; of an unkeyed or refused row: among equal bytes
     * @param  KeyTuple|null  $key  canonical: with what the key forgives taken away; null when the row was refused
     * @param  Side|null  $side  null when both sides met
     * @param  array{source: int, target: int}  $rowsOfKey  how many rows have this key on each side
     * @param  list<CellFinding>  $cells  of a changed row, in the column order of the plan
     * @param  list<CellFinding>  $forgiven  cells that a rule let pass, where they are asked for
     * @param  RecordPlace|null  $kept  of a repeated row that was dropped: where the one that was kept stands
     * @param  string|null  $reason  why a missing or extra row has no counterpart, in words, where it is known
     * @param  KeyTuple|null  $deliveredKey  the key as the source delivered it, or the only side that has it
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
        public ?string $reason = null,
        public bool $isBridged = false,
        public ?KeyTuple $deliveredKey = null,
    ) {}

    /** What is known of the row beside its class, as a sentence; null when there is nothing to say. */
    public function remark(): ?string
    {
        return match (true) {
            $this->kept !== null => sprintf('Dropped: of the rows of this side with its key, the one of line %s%s was kept.', number_format($this->kept->line), $this->kept->part === 1 ? '' : " of part {$this->kept->part}").($this->reason === null ? '' : " It is the first of several, for {$this->reason}."),
            $this->reason !== null => sprintf('%s on the other side: %s.', $this->class === RowClass::Missing ? 'Missing' : 'Without a counterpart', $this->reason),
            $this->isBridged => 'Joined by a bridge.',
            default => null,
        };
    }

    /** The record of the only side that has one, of a changed row the source's. */
    public function record(): ?RowRecord
    {
        return $this->source ?? $this->target;
    }
}
