<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Plan\Plan;

/** By what the cells of a tally's records are named: its plan, and the columns of both deliveries. */
final readonly class Layout
{
    /**
     * @param  list<string>  $sourceColumns
     * @param  list<string>  $targetColumns
     */
    public function __construct(public Plan $plan, public array $sourceColumns, public array $targetColumns) {}
}
