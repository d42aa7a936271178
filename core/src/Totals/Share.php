<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use Brick\Math\BigDecimal;
use NineTally\Core\Value\Decimal;

/** The part of a difference between two totals that one class of rows, or one pattern, makes up. */
final class Share
{
    public int $rows = 0;

    public int $rowsUp = 0;

    public int $rowsDown = 0;

    public ExactSum $up;

    public ExactSum $down;

    public function __construct()
    {
        $this->up = new ExactSum;
        $this->down = new ExactSum;
    }

    /** @param Decimal $amount by which a row makes the target's total differ from the source's */
    public function add(Decimal $amount): void
    {
        $this->rows++;
        if ($amount->isNegative) {
            $this->rowsDown++;
            $this->down->add($amount);
        } else {
            $this->rowsUp += $amount->isZero() ? 0 : 1;
            $this->up->add($amount);
        }
    }

    public function take(self $other): void
    {
        $this->rows += $other->rows;
        $this->rowsUp += $other->rowsUp;
        $this->rowsDown += $other->rowsDown;
        $this->up->addSum($other->up);
        $this->down->addSum($other->down);
    }

    /** Whether any of its rows adds something. */
    public function moves(): bool
    {
        return ! $this->up->total()->isZero() || ! $this->down->total()->isZero();
    }

    /** Digits behind the point of its figures. */
    public function places(): int
    {
        return max($this->up->total()->getScale(), $this->down->total()->getScale());
    }

    public function net(): BigDecimal
    {
        return $this->up->total()->plus($this->down->total());
    }
}
