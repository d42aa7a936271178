<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** The whole row of one side, as it was delivered. */
final readonly class RowRecord
{
    /** @param list<string> $cells in the order of the side's columns */
    public function __construct(public int $line, public array $cells) {}
}
