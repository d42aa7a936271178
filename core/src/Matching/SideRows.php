<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Reading;

/** One side as it is matched: where its rows were put aside, how, and what happens to rows of it that share a key. */
final readonly class SideRows
{
    /** @param int|null $decidingColumn position of the column whose value decides which row is kept, read as $decidingReading says */
    public function __construct(
        public Side $side,
        public SpillReader $spill,
        public SideLayout $layout,
        public RepeatsPolicy $policy,
        private ?int $decidingColumn,
        private ?Reading $decidingReading,
        private bool $hasPlainKeys,
    ) {}

    /** The row as it came. */
    public function row(SpilledRows $rows, int $place): string
    {
        return $this->layout->row($rows->bodies[$place], $rows->rests[$place] ?? $rows->keys[$place]);
    }

    /** The key cells as they came. Where the key forgives, rows are never kept whole, and the rest begins with them. */
    public function deliveredKey(SpilledRows $rows, int $place): string
    {
        $columns = count($this->layout->keyPositions);

        return $this->hasPlainKeys ? $rows->keys[$place] : implode(Batch::CELL_END, array_slice(explode(Batch::CELL_END, $rows->rests[$place], $columns + 1), 0, $columns));
    }

    public function keptRow(): KeptRow
    {
        return new KeptRow($this->policy, $this->decidingReading);
    }

    public function decidingValue(string $row): string
    {
        return $this->decidingColumn === null ? '' : explode(Batch::CELL_END, $row)[$this->decidingColumn];
    }
}
