<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\ValueOrder;

/** A column whose value decides which of the rows of a key is kept. */
final readonly class Decider
{
    /** @param int $position of the column in a row */
    public function __construct(public int $position, private ValueOrder $order, private bool $keepsHighest) {}

    public function rank(string $value): BigDecimal|Moment|bool|string|null
    {
        return $this->order->rank($value);
    }

    /** @return int above zero when the first is the better one; blank and unreadable values are worse than any other */
    public function compare(BigDecimal|Moment|bool|string|null $first, BigDecimal|Moment|bool|string|null $second): int
    {
        if ($first === null || $second === null) {
            return ($first !== null) <=> ($second !== null);
        }
        $order = $this->order->compare($first, $second);

        return $this->keepsHighest ? $order : -$order;
    }
}
