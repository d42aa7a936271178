<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/**
 * Where a row came from: the part of the delivery, and the physical line on which its record begins there.
 *
 * As a whole number it is a row's packed place: the part in the upper bits, so packed places rise in the order of the delivery.
 */
final readonly class RecordPlace
{
    private const LINE_BITS = 47;

    /** @param int $part from 1 */
    public function __construct(public int $part, public int $line) {}

    public static function ofPacked(int $packedPlace): self
    {
        return new self($packedPlace >> self::LINE_BITS, $packedPlace & (1 << self::LINE_BITS) - 1);
    }

    public function packed(): int
    {
        return $this->part << self::LINE_BITS | $this->line;
    }
}
