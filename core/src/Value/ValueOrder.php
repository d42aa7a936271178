<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

use Brick\Math\BigDecimal;

/**
 * Which of two values is the higher one, read as a kind under what side and column declare: one answer for policies, steps and totals.
 *
 * Text stands in the order of its code points, which for UTF-8 is that of its bytes: no locale decides.
 */
final readonly class ValueOrder
{
    public function __construct(private Reading $reading) {}

    /** @return BigDecimal|Moment|bool|string|null what can be compared; null where the value is blank or cannot be read as its kind */
    public function rank(string $value): BigDecimal|Moment|bool|string|null
    {
        if ($this->reading->isBlank($value)) {
            return null;
        }

        return match ($this->reading->kind) {
            Kind::Text => $value,
            Kind::Number => $this->reading->number($value)?->toBigDecimal(),
            Kind::Date, Kind::DateTime => $this->reading->canRead($value) ? $this->reading->moment($value) : null,
            Kind::YesNo => $this->reading->yesOrNo($value),
        };
    }

    /**
     * @return int below zero, zero or above, as the first rank is lower, the same or higher; null is neither, and comes last whichever way
     *     is asked for
     */
    public function compare(BigDecimal|Moment|bool|string|null $first, BigDecimal|Moment|bool|string|null $second): int
    {
        return match (true) {
            $first instanceof BigDecimal && $second instanceof BigDecimal => $first->compareTo($second),
            $first instanceof Moment && $second instanceof Moment => $first->compareTo($second),
            is_string($first) && is_string($second) => strcmp($first, $second),
            default => $first <=> $second,
        };
    }
}
