<?php

declare(strict_types=1);

namespace App\Queries\Review;

use NineTally\Core\Cause\Cause;

/** A column of a record under its name on each side; a side that has no row or no such column has null. */
final readonly class RecordField
{
    /**
     * @param  string  $role  key, compared or not-compared
     * @param  Cause|null  $letPass  what the plan lets pass here; null where both sides are the same, or differ
     */
    public function __construct(
        public string $role,
        public ?string $source,
        public ?string $target,
        public ?string $sourceValue,
        public ?string $targetValue,
        public ?RulableCell $finding,
        public ?Cause $letPass = null,
    ) {}
}
