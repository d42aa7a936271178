<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness\Measures;

use NineTally\Core\Likeness\Measure;
use NineTally\Core\Value\Reading;

/** For dates: 1 on the same day, and nothing from a year apart on. */
final readonly class DateDistance implements Measure
{
    private const DAYS = 365;

    public function made(string $value, Reading $reading): ?int
    {
        return $reading->isBlank($value) ? null : $reading->moment($value)?->days;
    }

    public function likeness(mixed $one, mixed $other): float
    {
        assert(is_int($one) && is_int($other));

        return max(0.0, 1 - abs($one - $other) / self::DAYS);
    }

    public function traces(mixed $made): array
    {
        assert(is_int($made));

        return [(string) $made];
    }
}
