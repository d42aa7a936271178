<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/**
 * One step of a side's preparation: rows come in, rows go out, and the figures say what became of each.
 *
 * The key of a row is its packed place, which leads to the delivered record it came from (RecordPlace). A step holds nothing between two
 * runs.
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
     * @param  iterable<int, list<string>>  $rows  packed place => cells; several rows may have one packed place
     * @param  list<string>  $columns
     * @return \Generator<int, list<string>>
     *
     * @throws UnusableStep
     */
    public function run(iterable $rows, array $columns, StepContext $context): \Generator;
}
