<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/** For numbers: 1 less the distance as a part of the larger of the two; nothing for numbers of different signs. */
final readonly class NumberDistance implements Measure
{
    public function made(string $value, Reading $reading): ?float
    {
        $number = $reading->isBlank($value) ? null : $reading->number($value)?->toBigDecimal();

        return $number?->toFloat();
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_float($one) && is_float($other));

        return $one === $other ? 1.0 : max(0.0, 1 - abs($one - $other) / max(abs($one), abs($other)));
    }

    public function traces(mixed $made): array
    {
        assert(is_float($made));

        return [(string) $made];
    }
}
