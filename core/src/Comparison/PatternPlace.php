<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** Where a cell stands: the number of its pattern, and its ordinal there, both from 1; 0 while nobody has counted. */
final readonly class PatternPlace
{
    public function __construct(public int $number = 0, public int $ordinal = 0) {}
}
