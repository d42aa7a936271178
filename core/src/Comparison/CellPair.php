<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** The two cells that a column pair brings together. */
final readonly class CellPair
{
    public function __construct(public string $source, public string $target) {}

    /** Blank is the empty cell and nothing else: a space is a value. */
    public function isBlankInSource(): bool
    {
        return $this->source === '';
    }

    public function isBlankInTarget(): bool
    {
        return $this->target === '';
    }
}
