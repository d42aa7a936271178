<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Comparison\RowFinding;

/** A row that did not agree, with what stands for it. */
final readonly class RulableRow
{
    public function __construct(public RowFinding $finding, public Standing $standing) {}
}
