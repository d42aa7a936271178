<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;

/** Takes findings that are told by nothing but their values. */
interface PlainLines
{
    /**
     * @param  list<string>  $key  as it was delivered
     * @param  list<array{int, string, string, string, string}>  $cells  that are changed: column pair, cause, both values, and what two
     *     numbers differ by
     */
    public function changed(array $key, array $cells): void;

    /**
     * A row that has no counterpart.
     *
     * @param  string  $row  its cells joined by Batch::CELL_END
     */
    public function alone(RowClass $class, int $part, int $line, string $row): void;
}
