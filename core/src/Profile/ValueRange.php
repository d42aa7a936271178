<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Decimal;

/** The least and the greatest value of a column, for each kind that orders them. Of equal ones the first. */
final class ValueRange
{
    /** @var array<string, array{int|string, string, int|string, string}> kind
     *     => the least value as the kind orders it, and as it is written; the greatest
     */
    private array $ranges = [];

    /** @var array{array{float, Decimal, string}, array{float, Decimal, string}}|null */
    private ?array $numbers = null;

    /** @param int|string $read the value as the kind orders it */
    public function widen(string $kind, string $value, int|string $read): void
    {
        $range = $this->ranges[$kind] ??= [$read, $value, $read, $value];
        if (is_string($read) ? strcmp($read, (string) $range[0]) < 0 : $read < $range[0]) {
            $this->ranges[$kind][0] = $read;
            $this->ranges[$kind][1] = $value;
        } elseif (is_string($read) ? strcmp($read, (string) $range[2]) > 0 : $read > $range[2]) {
            $this->ranges[$kind][2] = $read;
            $this->ranges[$kind][3] = $value;
        }
    }

    /** @param float $size the number to the nearest double: only where that says nothing are all digits compared */
    public function widenNumbers(string $value, Decimal $number, float $size): void
    {
        if ($this->numbers === null) {
            $this->numbers = [[$size, $number, $value], [$size, $number, $value]];

            return;
        }
        [$least, $greatest] = $this->numbers;
        if ($size < $least[0] || $size === $least[0] && self::isLess($number, $least[1])) {
            $this->numbers[0] = [$size, $number, $value];
        } elseif ($size > $greatest[0] || $size === $greatest[0] && self::isLess($greatest[1], $number)) {
            $this->numbers[1] = [$size, $number, $value];
        }
    }

    /** @return array{string, string}|null the least and the greatest as they are written */
    public function of(string $kind): ?array
    {
        if ($kind === 'number') {
            return $this->numbers === null ? null : [$this->numbers[0][2], $this->numbers[1][2]];
        }

        return isset($this->ranges[$kind]) ? [$this->ranges[$kind][1], $this->ranges[$kind][3]] : null;
    }

    private static function isLess(Decimal $one, Decimal $other): bool
    {
        return ! $one->isEqualTo($other) && $one->minus($other)?->isNegative === true;
    }
}
