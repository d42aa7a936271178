<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Spill\SpilledRow;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Repeats\RepeatRules;
use NineTally\Core\Row\Side;

/** One side as it is matched: where its rows were put aside, how, and what happens to rows of it that share a key. */
final readonly class SideRows
{
    public function __construct(
        public Side $side,
        public SpillReader $spill,
        public RowEncoding $layout,
        public RepeatRules $repeats,
        private bool $hasPlainKeys,
    ) {}

    /** The row as it came. */
    public function row(SpilledRow $row): string
    {
        return $this->layout->row($row->body, $row->rest);
    }

    /** The key cells as they came. Where the key forgives, rows are never kept whole, and the rest begins with them. */
    public function deliveredKey(SpilledRow $row): string
    {
        $columns = count($this->layout->keyPositions);

        return $this->hasPlainKeys
            ? $row->key
            : implode(Batch::CELL_END, array_slice(explode(Batch::CELL_END, $row->rest, $columns + 1), 0, $columns));
    }
}
