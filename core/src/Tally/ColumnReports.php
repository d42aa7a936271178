<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Records\RecordReport;
use NineTally\Core\Totals\TotalReport;

/** What is told of columns beside what became of their cells. */
final readonly class ColumnReports
{
    /**
     * @param  list<array{source: string, target: string, cells: int, values: array<string, int>|null}>  $withoutEntry  values that
     *     crosswalks do not know
     * @param  list<TotalReport>  $totals  control totals, in the order of the plan
     * @param  list<RecordReport>  $records  what must have a record, in the order of the plan
     */
    public function __construct(public array $withoutEntry = [], public array $totals = [], public array $records = []) {}
}
