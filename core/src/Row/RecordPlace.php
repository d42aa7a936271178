<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/**
 * Where a row came from: the part of the delivery, and the physical line on which its record begins there.
 *
 * As a whole number it is a row's origin: the part in the upper bits, so origins rise in the order of the delivery.
 */
final readonly class RecordPlace
{
    private const LINE_BITS = 47;

    /** @param int $part from 1 */
    public function __construct(public int $part, public int $line) {}

    public static function ofOrigin(int $origin): self
    {
        return new self($origin >> self::LINE_BITS, $origin & (1 << self::LINE_BITS) - 1);
    }

    public function origin(): int
    {
        return $this->part << self::LINE_BITS | $this->line;
    }
}
