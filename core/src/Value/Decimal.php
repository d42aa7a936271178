<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

use Brick\Math\BigDecimal;

/** An exact decimal of any length: sign, digits without zeros at either end, and the power of ten they are multiplied by. */
final readonly class Decimal
{
    /** Beyond this many digits written out, sums are not worth their memory: 1e400 is fine, 1e999999999 is not. */
    private const MOST_DIGITS = 5_000;

    /** @param string $digits without leading or trailing zeros; "0" for zero */
    private function __construct(public bool $isNegative, public string $digits, public int $exponent) {}

    public static function zero(): self
    {
        return self::of(false, '0', '', 0);
    }

    /**
     * @param  string  $whole  digits before the point, possibly none
     * @param  string  $part  digits behind it, possibly none
     */
    public static function of(bool $isNegative, string $whole, string $part, int $exponent): self
    {
        $digits = ltrim($whole.$part, '0');
        $significant = rtrim($digits, '0');

        // Minus zero is zero.
        return $significant === ''
            ? new self(false, '0', 0)
            : new self($isNegative, $significant, $exponent - strlen($part) + strlen($digits) - strlen($significant));
    }

    /** One spelling for each number, such as "-12345e-1". */
    public function canonical(): string
    {
        return ($this->isNegative ? '-' : '').$this->digits.'e'.$this->exponent;
    }

    /** Of a spelling that canonical() gave. */
    public static function fromCanonical(string $canonical): self
    {
        [$digits, $exponent] = explode('e', $canonical);

        return new self($digits[0] === '-', ltrim($digits, '-'), (int) $exponent);
    }

    /** As a person writes it: -0.5, 1200. */
    public function written(): string
    {
        $digits =
            $this->exponent >= 0
                ? $this->digits.str_repeat('0', min($this->exponent, self::MOST_DIGITS))
                : str_pad($this->digits, 1 - $this->exponent, '0', STR_PAD_LEFT);
        $whole = $this->exponent >= 0 ? $digits : substr($digits, 0, $this->exponent).'.'.substr($digits, $this->exponent);

        return ($this->isNegative ? '-' : '').$whole;
    }

    /** @return self|null null when a difference of so many digits is not worth its memory */
    public function minus(self $other): ?self
    {
        $exponent = min($this->exponent, $other->exponent);
        [$shift, $otherShift] = [$this->exponent - $exponent, $other->exponent - $exponent];
        // Within 18 digits the machine's integers are exact, and ten times as fast.
        if (strlen($this->digits) + $shift <= 18 && strlen($other->digits) + $otherShift <= 18) {
            $apart = $this->scaled($shift) - $other->scaled($otherShift);

            return self::of($apart < 0, (string) abs($apart), '', $exponent);
        }
        [$one, $another] = [$this->toBigDecimal(), $other->toBigDecimal()];
        if ($one === null || $another === null) {
            return null;
        }
        $apart = $one->minus($another);

        return self::of($apart->isNegative(), (string) $apart->getUnscaledValue()->abs(), '', -$apart->getScale());
    }

    /** @return self|null null when a product of so many digits is not worth its memory */
    public function times(self $other): ?self
    {
        $isNegative = $this->isNegative !== $other->isNegative;
        if (strlen($this->digits) + strlen($other->digits) <= 18) {
            return self::of($isNegative, (string) ((int) $this->digits * (int) $other->digits), '', $this->exponent + $other->exponent);
        }
        [$one, $another] = [$this->toBigDecimal(), $other->toBigDecimal()];
        if ($one === null || $another === null) {
            return null;
        }
        $product = $one->multipliedBy($another);

        return self::of($isNegative, (string) $product->getUnscaledValue()->abs(), '', -$product->getScale());
    }

    public function negated(): self
    {
        return $this->isZero() ? $this : new self(! $this->isNegative, $this->digits, $this->exponent);
    }

    /** Whether it can be written out, and so be added up. */
    public function canBeSummed(): bool
    {
        return strlen($this->digits) + abs($this->exponent) <= self::MOST_DIGITS;
    }

    private function scaled(int $power): int
    {
        return ($this->isNegative ? -1 : 1) * (int) $this->digits * 10 ** $power;
    }

    public function isZero(): bool
    {
        return $this->digits === '0';
    }

    public function isEqualTo(self $other): bool
    {
        return $this == $other;
    }

    /** Farther from nought, whichever the sign. */
    public function isLargerThan(self $other): bool
    {
        if ($this->isZero() || $other->isZero()) {
            return ! $this->isZero();
        }
        $above = strlen($this->digits) + $this->exponent <=> strlen($other->digits) + $other->exponent;

        // Of as many places before the point, digits are in the order of texts: none ends with a nought.
        return $above === 0 ? strcmp($this->digits, $other->digits) > 0 : $above > 0;
    }

    public function isNegationOf(self $other): bool
    {
        return ! $this->isZero() &&
            $this->isNegative !== $other->isNegative &&
            $this->digits === $other->digits &&
            $this->exponent === $other->exponent;
    }

    /** @return int|null n where this is the other times ten to the power of n; null when there is none, or for zero */
    public function powerOfTenOver(self $other): ?int
    {
        return ! $this->isZero() && $this->isNegative === $other->isNegative && $this->digits === $other->digits
            ? $this->exponent - $other->exponent
            : null;
    }

    /** Decimal places that the value needs; trailing zeros need none. */
    public function places(): int
    {
        return max(0, -$this->exponent);
    }

    /** @return BigDecimal|null for sums; null when it has too many digits to be written out */
    public function toBigDecimal(): ?BigDecimal
    {
        return $this->canBeSummed() ? BigDecimal::of($this->canonical()) : null;
    }
}
