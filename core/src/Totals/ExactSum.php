<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Decimal;

/**
 * A sum of decimals of any length, exact. What fits into the machine's integers is added there, by the number of decimal places; an
 * overflow is noticed, and carried into a number without bounds.
 */
final class ExactSum
{
    /** Of a number that certainly fits. */
    private const PLAIN_DIGITS = 17;

    /** So many numbers of so many digits fit into the machine's integers together. */
    private const DIGITS_AT_ONCE = 13;

    private const MOST_AT_ONCE = 100_000;

    private const MOST_PLACES = 6;

    /** @var array<int, int> decimal places => sum in units of the last place */
    private array $scaled = [];

    private ?BigDecimal $beyond = null;

    /**
     * Of a cell written with digits, a minus before them and a point between them at most: nearly all are.
     *
     * @return bool false where it is written in another way, and nothing was added
     */
    public function addPlain(string $cell): bool
    {
        $length = strlen($cell);
        $start = $length > 0 && $cell[0] === '-' ? 1 : 0;
        $whole = strspn($cell, '0123456789', $start);
        $point = $start + $whole;
        if ($whole === 0 || $length > self::PLAIN_DIGITS) {
            return false;
        }
        if ($point === $length) {
            $this->addUnits((int) $cell, 0);

            return true;
        }
        $places = $cell[$point] === '.' ? strspn($cell, '0123456789', $point + 1) : 0;
        if ($places === 0 || $point + 1 + $places !== $length) {
            return false;
        }
        $this->addUnits((int) (substr($cell, 0, $point).substr($cell, $point + 1)), $places);

        return true;
    }

    /**
     * Of many cells that are all written plainly, with the same number of decimal places: such as stand in a column of money.
     *
     * @param  array<int, string>  $cells
     * @return bool false where one is not, and nothing was added
     */
    public function addPlainOnes(array $cells): bool
    {
        $first = reset($cells);
        if ($first === false || count($cells) > self::MOST_AT_ONCE) {
            return false;
        }
        $point = strpos($first, '.');
        $places = $point === false ? 0 : strlen($first) - $point - 1;
        if ($places > self::MOST_PLACES) {
            return false;
        }
        $cell = '-?\d{1,'.(self::DIGITS_AT_ONCE - $places).'}'.($places === 0 ? '' : "\\.\\d{{$places}}");
        $written = implode(' ', $cells);
        if (preg_match("/^{$cell}(?: {$cell})*+\$/D", $written) !== 1) {
            return false;
        }
        $this->addUnits((int) array_sum(explode(' ', str_replace('.', '', $written))), $places);

        return true;
    }

    /**
     * @param  Decimal  $number  that can be summed
     * @param  int  $times  how often
     */
    public function add(Decimal $number, int $times = 1): void
    {
        if ($number->exponent <= 0 && strlen($number->digits) + strlen((string) $times) <= self::PLAIN_DIGITS + 1) {
            $this->addUnits(($number->isNegative ? -1 : 1) * (int) $number->digits * $times, -$number->exponent);
        } else {
            $exact = $number->toBigDecimal() ?? throw new \LogicException('Whoever adds has looked whether it can be added.');
            $this->carry($times === 1 ? $exact : $exact->multipliedBy($times));
        }
    }

    public function addSum(self $other): void
    {
        foreach ($other->scaled as $places => $units) {
            $this->addUnits($units, $places);
        }
        if ($other->beyond !== null) {
            $this->carry($other->beyond);
        }
    }

    public function total(): BigDecimal
    {
        $total = $this->beyond ?? BigDecimal::zero();
        foreach ($this->scaled as $places => $units) {
            $total = $total->plus(BigDecimal::ofUnscaledValue($units, $places));
        }

        return $total;
    }

    private function addUnits(int $units, int $places): void
    {
        /** @var int|float $sum an overflow makes a float of it */
        $sum = ($this->scaled[$places] ?? 0) + $units;
        if (is_int($sum)) {
            $this->scaled[$places] = $sum;
        } else {
            $this->carry(BigDecimal::ofUnscaledValue($this->scaled[$places], $places));
            $this->scaled[$places] = $units;
        }
    }

    private function carry(BigDecimal $number): void
    {
        $this->beyond = $this->beyond === null ? $number : $this->beyond->plus($number);
    }
}
