<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** Told once per block and partition; throws TallyCancelled when nobody wants the result any more. */
interface Progress
{
    public function report(ProgressReport $report): void;
}
