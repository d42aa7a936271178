<?php

declare(strict_types=1);

namespace App\Queries\Review;

/** A column of a record under its name on each side; a side that has no row or no such column has null. */
final readonly class RecordField
{
    /** @param string $role key, compared or not-compared */
    public function __construct(
        public string $role,
        public ?string $source,
        public ?string $target,
        public ?string $sourceValue,
        public ?string $targetValue,
        public ?RulableCell $finding,
    ) {}
}
