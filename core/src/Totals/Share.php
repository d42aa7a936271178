<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use Brick\Math\BigDecimal;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Decimal;

/**
 * The part of a difference between two totals that one class of rows, or one pattern, makes up.
 *
 * @phpstan-type ShareFigures array{name: string, rows: int, net: string, rowsUp: int, up: string, rowsDown: int, down: string,
 *     keys?: list<list<string>>}
 */
final class Share
{
    public int $rows = 0;

    public int $rowsUp = 0;

    public int $rowsDown = 0;

    public ExactSum $up;

    public ExactSum $down;

    /** @var array<array-key, true> keys of rows that no list of findings has: the least ones, so that the order of rows changes nothing */
    private array $keys = [];

    /** @param int $kept how many of them are told */
    public function __construct(private readonly int $kept = 0)
    {
        $this->up = new ExactSum;
        $this->down = new ExactSum;
    }

    /**
     * @param  Decimal  $amount  by which a row makes the target's total differ from the source's
     * @param  string|null  $key  by which the row is found, where no list of findings has it
     */
    public function add(Decimal $amount, ?string $key = null): void
    {
        if ($key !== null) {
            $this->keep([$key => true]);
        }
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
        $this->keep($other->keys);
    }

    /** @return list<list<string>> the cells of the least keys */
    public function keys(): array
    {
        ksort($this->keys, SORT_STRING);

        return array_map(
            static fn(int|string $key): array => explode(KeyTuple::SEPARATOR, (string) $key),
            array_keys(array_slice($this->keys, 0, $this->kept, true)),
        );
    }

    /** @param array<array-key, true> $keys */
    private function keep(array $keys): void
    {
        $this->keys += $keys;
        if (count($this->keys) > 2 * $this->kept) {
            ksort($this->keys, SORT_STRING);
            $this->keys = array_slice($this->keys, 0, $this->kept, true);
        }
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

    /**
     * @param  \Closure(BigDecimal): string  $written
     * @return ShareFigures
     */
    public function figures(string $name, \Closure $written): array
    {
        return [
            'name' => $name,
            'rows' => $this->rows,
            'net' => $written($this->net()),
            'rowsUp' => $this->rowsUp,
            'up' => $written($this->up->total()),
            'rowsDown' => $this->rowsDown,
            'down' => $written($this->down->total()),
            ...array_filter(['keys' => $this->keys()]),
        ];
    }

    public function net(): BigDecimal
    {
        return $this->up->total()->plus($this->down->total());
    }
}
