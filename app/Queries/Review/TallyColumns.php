<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/** By what the cells of a tally's records are named: its plan, and the columns of both sides when their steps have run. */
final readonly class TallyColumns
{
    /**
     * @param  list<string>  $sourceColumns
     * @param  list<string>  $targetColumns
     * @param  array{source: list<string>, target: list<string>}  $files  of each delivery, in the order of its parts
     */
    private function __construct(public Plan $plan, public array $sourceColumns, public array $targetColumns, public array $files) {}

    /**
     * @param  list<string>  $source  as delivered
     * @param  list<string>  $target
     * @param  array{source: list<string>, target: list<string>}  $files
     */
    public static function of(Plan $plan, array $source, array $target, array $files): self
    {
        return new self($plan, $plan->source->preparation->columns($source), $plan->target->preparation->columns($target), $files);
    }

    /** The file that a row came in, where its delivery has several. */
    public function file(Side $side, ?int $part): ?string
    {
        $files = $this->files[$side->value];

        return $part === null || count($files) < 2 ? null : $files[$part - 1] ?? null;
    }
}
