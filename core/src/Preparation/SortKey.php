<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\ValueOrder;

/** Which of two rows comes first by a column. Blank and unreadable values come last, whichever way it goes; ties keep their order. */
final readonly class SortKey
{
    public function __construct(public string $column, public Kind $kind = Kind::Text, public bool $isDescending = false) {}

    /**
     * @param  list<array{int, int, list<string>}>  $rows
     * @param  ValueOrder  $order  of the column, as the side declares it
     * @return list<array{int, int, list<string>}>
     */
    public function sorted(array $rows, int $place, ValueOrder $order): array
    {
        $ranks = array_map(static fn(array $row): mixed => $order->rank($row[2][$place]), $rows);
        $positions = array_keys($rows);
        usort($positions, function (int $one, int $other) use ($ranks, $order): int {
            [$first, $second] = [$ranks[$one], $ranks[$other]];
            if ($first === null || $second === null) {
                return ($first === null) <=> ($second === null) ?: $one <=> $other;
            }
            $compared = $order->compare($first, $second);

            return ($this->isDescending ? -$compared : $compared) ?: $one <=> $other;
        });

        return array_map(static fn(int $position): array => $rows[$position], $positions);
    }

    public function values(StepContext $context): ValueOrder
    {
        return new ValueOrder($context->reading($this->column, $this->kind));
    }
}
