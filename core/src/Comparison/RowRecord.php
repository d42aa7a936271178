<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** The whole row of one side, as it was prepared, with the place where it was delivered. */
final readonly class RowRecord
{
    /**
     * @param  int  $line  on which its record begins
     * @param  list<string>  $cells  in the order of the side's columns
     * @param  int  $part  of the delivery, from 1
     */
    public function __construct(public int $line, public array $cells, public int $part = 1) {}

    /**
     * @param  list<int>  $positions
     * @return list<string>
     */
    public function cellsAt(array $positions): array
    {
        return array_map(fn(int $position): string => $this->cells[$position], $positions);
    }
}
