<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

/** The cells of the row that is looked at: one object for all rows of a run. */
final class RowCursor
{
    /** @param list<string> $cells */
    public function __construct(public array $cells = []) {}
}
