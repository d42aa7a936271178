<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Plan\Plan;

/** By what the cells of a tally's records are named: its plan, and the columns of both sides when their steps have run. */
final readonly class Layout
{
    /**
     * @param  list<string>  $sourceColumns
     * @param  list<string>  $targetColumns
     */
    private function __construct(public Plan $plan, public array $sourceColumns, public array $targetColumns) {}

    /**
     * @param  list<string>  $source  as delivered
     * @param  list<string>  $target
     */
    public static function of(Plan $plan, array $source, array $target): self
    {
        return new self($plan, $plan->source->shape->columns($source), $plan->target->shape->columns($target));
    }
}
