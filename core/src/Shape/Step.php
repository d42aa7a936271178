<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

/**
 * One step of a side's shape: rows come in, rows go out, and the figures say what became of each.
 *
 * The key of a row is its origin, which leads to the delivered record it came from (RecordPlace). A step holds nothing between two runs.
 */
interface Step
{
    /**
     * @param  list<string>  $columns  names of the cells that come in
     * @return list<string> of those that go out
     *
     * @throws UnusableStep when a column it needs is not there
     */
    public function columns(array $columns): array;

    /** What it does, in words. */
    public function sentence(): string;

    /**
     * @param  iterable<int, list<string>>  $rows  origin => cells; several rows may have one origin
     * @param  list<string>  $columns
     * @return \Generator<int, list<string>>
     *
     * @throws UnusableStep
     */
    public function run(iterable $rows, array $columns, StepContext $context): \Generator;
}
