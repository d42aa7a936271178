<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** One delivered row of one side, with the place it came from. */
final readonly class Row
{
    /**
     * @param  int  $line  the physical line on which the record begins, from 1; in the order of the delivery it only rises
     * @param  list<string>  $cells  UTF-8, in the order of the side's Columns
     */
    public function __construct(public int $line, public array $cells) {}
}
