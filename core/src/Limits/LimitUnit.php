<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/** In what the worst value of a limit is written: a decimal with a point. */
enum LimitUnit: string
{
    case Percent = 'percent';
    case Count = 'count';
    case Amount = 'amount';
    case Hours = 'hours';

    public function written(string $decimal): string
    {
        [$whole, $decimals] = [...explode('.', ltrim($decimal, '-'), 2), ''];
        $number = (str_starts_with($decimal, '-') ? '−' : '').
            preg_replace('/\B(?=(\d{3})+$)/', ',', $whole).
            ($decimals === '' ? '' : ".{$decimals}");

        return match ($this) {
            self::Percent => "{$number} %",
            self::Hours => "{$number} h",
            default => $number,
        };
    }
}
