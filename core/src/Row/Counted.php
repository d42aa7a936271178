<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** A number with its noun: "1 row", "1,204 rows". */
final readonly class Counted
{
    public static function of(int $number, string $one): string
    {
        return number_format($number).' '.$one.($number === 1 ? '' : 's');
    }
}
