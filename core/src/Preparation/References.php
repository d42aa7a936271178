<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/**
 * Tables that values are looked up from, by the names that the plan gives them.
 *
 * @phpstan-import-type ReferenceLedger from ReferenceShelf
 */
interface References
{
    /** @throws UnusableStep when there is none of that name */
    public function named(string $name): ReferenceTable;

    /** @return list<ReferenceLedger> what became of the rows of those that were asked for */
    public function ledgers(): array;
}
