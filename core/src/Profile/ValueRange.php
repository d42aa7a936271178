<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use Brick\Math\BigDecimal;

/** The least and the greatest value of a column, for each kind that orders them. */
final class ValueRange
{
    /**
     * @var array<string, array{BigDecimal|int|string, string, BigDecimal|int|string, string}> kind
     *     => the least value as the kind orders it, and as it is written; the greatest
     */
    private array $ranges = [];

    /** @param BigDecimal|int|string $read the value as the kind orders it */
    public function widen(string $kind, string $value, BigDecimal|int|string $read): void
    {
        $range = $this->ranges[$kind] ?? null;
        if ($range === null || self::order($read, $range[0]) < 0) {
            $range = [$read, $value, $range[2] ?? $read, $range[3] ?? $value];
            $this->ranges[$kind] = $range;
        }
        if (self::order($read, $range[2]) > 0) {
            $this->ranges[$kind] = [$range[0], $range[1], $read, $value];
        }
    }

    /** @return array{string, string}|null the least and the greatest as they are written */
    public function of(string $kind): ?array
    {
        return isset($this->ranges[$kind]) ? [$this->ranges[$kind][1], $this->ranges[$kind][3]] : null;
    }

    private static function order(BigDecimal|int|string $one, BigDecimal|int|string $other): int
    {
        return match (true) {
            $one instanceof BigDecimal && $other instanceof BigDecimal => $one->compareTo($other),
            is_string($one) && is_string($other) => strcmp($one, $other),
            default => $one <=> $other,
        };
    }
}
