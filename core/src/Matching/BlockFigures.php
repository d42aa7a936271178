<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Intake\Batch;
use NineTally\Core\Totals\SideTotals;

/** What is counted of the rows of a side block by block, before any of them is taken apart. */
final readonly class BlockFigures
{
    public function __construct(private BlankCells $blanks, private SideTotals $totals) {}

    public function count(Batch $batch, ScanOutput $output): void
    {
        $this->blanks->count($batch, $output->result);
        $this->totals->take($batch, $output->result->totals, $output->distinct);
    }
}
