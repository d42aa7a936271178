<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

/** One delivered row of one side, with the place it came from. */
final readonly class Row
{
    /**
     * @param  int  $number  the record's ordinal in its delivery, from 1, refused records counted
     * @param  int  $line  the physical line on which the record begins, from 1
     * @param  list<string>  $cells  UTF-8, in the order of the side's Columns
     */
    public function __construct(public int $number, public int $line, public array $cells) {}
}
