<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Rulings\FindingSet\Filter;

/** The findings of a filter as a table: a line for each, in source order. */
interface FindingTable
{
    /** @return list<TableField> */
    public function fields(): array;

    /** @return \Generator<int, list<string|int|float>> by how many findings were read with it; '' where a field says nothing */
    public function lines(Filter $filter): \Generator;

    /** @return list<string> the fields by which a line is known */
    public function primaryKey(): array;
}
