<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;

/** Decimal places that one side keeps by decision, and how the rest goes. */
final readonly class DeclaredRounding
{
    public const MODES = [
        'half-up' => RoundingMode::HALF_UP,
        'half-even' => RoundingMode::HALF_EVEN,
        'half-down' => RoundingMode::HALF_DOWN,
        'cut' => RoundingMode::DOWN,
        'up' => RoundingMode::UP,
        'floor' => RoundingMode::FLOOR,
        'ceiling' => RoundingMode::CEILING,
    ];

    /** @param key-of<self::MODES> $mode */
    public function __construct(public int $places, public string $mode) {}

    public function joins(BigDecimal $source, BigDecimal $target): bool
    {
        $mode = self::MODES[$this->mode];

        return $source->toScale($this->places, $mode)->isEqualTo($target) || $target->toScale($this->places, $mode)->isEqualTo($source);
    }
}
