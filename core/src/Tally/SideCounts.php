<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Intake\ReadingLedger;
use NineTally\Core\Matching\RowTally;
use NineTally\Core\Row\Side;

/** The three ledgers of one side. */
final readonly class SideCounts
{
    /** @param int $unmatched rows missing (source) or extra (target) */
    public function __construct(
        public Side $side,
        public int $read,
        public int $refused,
        public int $delivered,
        public int $leftOut,
        public int $made,
        public int $merged,
        public int $shaped,
        public int $unkeyed,
        public int $partlyBlankKeys,
        public int $repeated,
        public int $keysRepeatedHereOnly,
        public int $agreed,
        public int $changed,
        public int $unmatched,
    ) {}

    public static function from(Side $side, ReadingLedger $reading, RowTally $rows, int $partlyBlankKeys): self
    {
        return new self(
            side: $side,
            read: $reading->read,
            refused: $reading->refused,
            delivered: $reading->delivered,
            leftOut: 0,
            made: 0,
            merged: 0,
            shaped: $reading->delivered,
            unkeyed: $rows->of($side, RowClass::Unkeyed),
            partlyBlankKeys: $partlyBlankKeys,
            repeated: $rows->of($side, RowClass::Repeated),
            keysRepeatedHereOnly: $rows->keysRepeatedOnOneSideOnly($side),
            agreed: $rows->of($side, RowClass::Agreed),
            changed: $rows->of($side, RowClass::Changed),
            unmatched: $rows->of($side, $side === Side::Source ? RowClass::Missing : RowClass::Extra),
        );
    }

    /** @return array<string, int> by the names of the export; the order is that of the ledgers */
    public function toArray(): array
    {
        return [
            'read' => $this->read,
            'refused' => $this->refused,
            'delivered' => $this->delivered,
            'left_out' => $this->leftOut,
            'made' => $this->made,
            'merged' => $this->merged,
            'shaped' => $this->shaped,
            'unkeyed' => $this->unkeyed,
            'repeated' => $this->repeated,
            'agreed' => $this->agreed,
            'changed' => $this->changed,
            $this->side === Side::Source ? 'missing' : 'extra' => $this->unmatched,
        ];
    }
}
