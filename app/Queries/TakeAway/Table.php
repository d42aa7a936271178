<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

/** What is taken away, as a table: findings in source order, defects, corrections. */
interface Table
{
    /** @return list<TableField> */
    public function fields(): array;

    /** @return \Generator<int, list<string|int|float>> by how many lines were read with it; '' where a field says nothing */
    public function lines(): \Generator;

    /** @return list<string> the fields by which a line is known */
    public function primaryKey(): array;
}
