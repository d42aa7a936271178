<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\UndeclaredDates;

/** Which of two rows comes first by a column. Blank and unreadable values come last, whichever way it goes; ties keep their order. */
final readonly class Order
{
    public function __construct(public string $column, public Kind $kind = Kind::Text, public bool $isDescending = false) {}

    /**
     * @param  list<array{int, int, list<string>}>  $rows
     * @return list<array{int, int, list<string>}>
     */
    public function sorted(array $rows, int $place): array
    {
        $values = array_map(fn(array $row): mixed => $this->value($row[2][$place]), $rows);
        $positions = array_keys($rows);
        usort($positions, function (int $one, int $other) use ($values): int {
            [$first, $second] = [$values[$one], $values[$other]];
            if ($first === null || $second === null) {
                return ($first === null) <=> ($second === null) ?: $one <=> $other;
            }
            $order = $first instanceof \Brick\Math\BigDecimal && $second instanceof \Brick\Math\BigDecimal ? $first->compareTo($second) : (is_string($first) && is_string($second) ? strcmp($first, $second) : $first <=> $second);

            return ($this->isDescending ? -$order : $order) ?: $one <=> $other;
        });

        return array_map(static fn(int $position): array => $rows[$position], $positions);
    }

    /** @return \Brick\Math\BigDecimal|int|string|null null where it is blank or cannot be read */
    public function value(string $cell): mixed
    {
        return match ($this->kind) {
            Kind::Number => $cell === '' ? null : (new NumberStyle)->read($cell, true)?->toBigDecimal(),
            Kind::Date, Kind::DateTime => $cell === '' ? null : UndeclaredDates::read($cell)?->secondsSinceEpoch(),
            default => $cell === '' ? null : $cell,
        };
    }
}
