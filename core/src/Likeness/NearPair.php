<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

/** A row of each side that are taken for one. */
final readonly class NearPair
{
    /** @param float $rival the best score that either has with another row; 0 if it is like no other */
    public function __construct(public int $source, public int $target, public float $score, public float $rival) {}

    public function margin(): float
    {
        return $this->score - $this->rival;
    }
}
