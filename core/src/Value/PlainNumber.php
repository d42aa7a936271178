<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * A number as nearly all are written: digits, a point between them or none, a minus before them or none, and few enough that the machine's
 * integers hold them exactly. What does not fit any more is null, and left to decimals of any length.
 */
final readonly class PlainNumber
{
    /** A double holds every whole number of so many digits, so that one division of two of them is exact (IEEE 754, section 5.4.1). */
    private const MOST_DIGITS = 15;

    /** An integer of 64 bits holds every whole number of so many. */
    private const RESULT_DIGITS = 18;

    /** The product of two whole numbers below it has no more. */
    private const HALF_DIGITS = 1_000_000_000;

    /** As many characters as one has at most. */
    public const LONGEST = 17;

    /**
     * @param  int  $units  of its last place
     * @param  int  $places  behind the point
     */
    private function __construct(public int $units, public int $places) {}

    public static function of(string $text): ?self
    {
        $length = strlen($text);
        if ($length === 0 || $length > self::MOST_DIGITS) {
            return null;
        }
        $start = $text[0] === '-' ? 1 : 0;
        $point = $start + strspn($text, '0123456789', $start);
        if ($point === $start) {
            return null;
        }
        if ($point === $length) {
            return new self((int) $text, 0);
        }
        $places = $length - $point - 1;

        return $text[$point] === '.' && $places > 0 && strspn($text, '0123456789', $point + 1) === $places
            ? new self((int) (substr($text, 0, $point).substr($text, $point + 1)), $places)
            : null;
    }

    public function plus(self $other): ?self
    {
        $places = max($this->places, $other->places);
        [$one, $another] = [$this->unitsAt($places), $other->unitsAt($places)];

        return $one === null || $another === null ? null : self::fitting($one + $another, $places);
    }

    public function minus(self $other): ?self
    {
        $places = max($this->places, $other->places);
        [$one, $another] = [$this->unitsAt($places), $other->unitsAt($places)];

        return $one === null || $another === null ? null : self::fitting($one - $another, $places);
    }

    public function times(self $other): ?self
    {
        $isSmall = abs($this->units) < self::HALF_DIGITS && abs($other->units) < self::HALF_DIGITS;

        return ! $isSmall && strlen((string) $this->units) + strlen((string) $other->units) > self::RESULT_DIGITS
            ? null
            : self::fitting($this->units * $other->units, $this->places + $other->places);
    }

    /** Halves away from nought. */
    public function rounded(int $places): ?self
    {
        if ($places >= $this->places) {
            $units = $this->unitsAt($places);

            return $units === null ? null : self::fitting($units, $places);
        }
        $step = 10 ** ($this->places - $places);
        $units = intdiv(abs($this->units), $step) + (2 * (abs($this->units) % $step) >= $step ? 1 : 0);

        return new self($this->units < 0 ? -$units : $units, $places);
    }

    /** @return int|null below, at or above nought as it is less than the other, equal or greater */
    public function comparedTo(self $other): ?int
    {
        $places = max($this->places, $other->places);
        [$one, $another] = [$this->unitsAt($places), $other->unitsAt($places)];

        return $one === null || $another === null ? null : $one <=> $another;
    }

    /** The nearest double. */
    public function size(): float
    {
        return (float) ($this->units / 10 ** $this->places);
    }

    /** Without noughts behind the point that say nothing. */
    public function stripped(): self
    {
        [$units, $places] = [$this->units, $this->places];
        while ($places > 0 && $units % 10 === 0) {
            $units = intdiv($units, 10);
            $places--;
        }

        return $places === $this->places ? $this : new self($units, $places);
    }

    /** With all of its places, or without noughts at their end. */
    public function written(bool $strips = true): string
    {
        $digits = (string) abs($this->units);
        if ($this->places > 0) {
            $digits = strlen($digits) > $this->places ? $digits : str_pad($digits, $this->places + 1, '0', STR_PAD_LEFT);
            $digits = substr($digits, 0, -$this->places).'.'.substr($digits, -$this->places);
            $digits = $strips ? rtrim(rtrim($digits, '0'), '.') : $digits;
        }

        return ($this->units < 0 ? '-' : '').$digits;
    }

    public function decimal(): Decimal
    {
        return Decimal::of($this->units < 0, (string) abs($this->units), '', -$this->places);
    }

    private function unitsAt(int $places): ?int
    {
        $shift = $places - $this->places;

        return $shift === 0
            ? $this->units
            : (strlen((string) abs($this->units)) + $shift > self::RESULT_DIGITS ? null : $this->units * (int) (10 ** $shift));
    }

    /** So that it can be gone on with, and is exact as a double too. */
    private static function fitting(int $units, int $places): ?self
    {
        return abs($units) < 10 ** self::MOST_DIGITS && $places <= self::MOST_DIGITS ? new self($units, $places) : null;
    }
}
