<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

use NineTally\Core\Totals\ExactSum;
use NineTally\Core\Value\Reading;

/** A column of numbers of which repeats add to the total. What is no number adds nothing. */
final readonly class StakeColumn
{
    /** @param Reading $reading as numbers, in the forms that the side declares */
    public function __construct(private int $place, private Reading $reading) {}

    /** @param list<string> $cells */
    public function add(ExactSum $sum, array $cells): void
    {
        $number = $this->reading->isBlank($cells[$this->place]) ? null : $this->reading->number($cells[$this->place]);
        if ($number?->toBigDecimal() !== null) {
            $sum->add($number);
        }
    }
}
