<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpillWriter;
use NineTally\Core\Totals\DistinctSpill;

/** What a scan writes while it reads. */
final readonly class ScanOutput
{
    public ScanResult $result;

    public function __construct(public SpillWriter $spill, public FindingSpool $findings, public DistinctSpill $distinct)
    {
        $this->result = new ScanResult;
    }
}
