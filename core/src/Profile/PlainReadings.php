<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Decimal;

/** As what a value can be read without any declaration. */
final readonly class PlainReadings
{
    /** The number to the nearest double: of two numbers whose doubles differ, it says which is the lesser (IEEE 754, section 4.3). */
    public float $size;

    /**
     * @param  Decimal|null  $number  that can be added up
     * @param  int|null  $moment  seconds since 1970-01-01
     */
    public function __construct(public ?Decimal $number, public ?int $moment, public bool $isDay, public ?bool $yes)
    {
        $this->size = $number === null ? 0.0 : (float) $number->canonical();
    }
}
