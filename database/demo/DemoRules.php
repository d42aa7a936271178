<?php

declare(strict_types=1);

namespace Database\Demo;

/** What the plan of a dataset says. */
final readonly class DemoRules
{
    /**
     * @param  array<string, array<string, mixed>>  $pairs  by source column: what the plan says of the pair, as plans are written
     * @param  list<string>  $blankTokens  that both sides declare
     * @param  array<string, array<string, mixed>>  $forms  by target column: how the new system writes it where that has to be declared
     * @param  array<string, array<string, string>>  $codes  by source column: what the new system has for each of its values
     * @param  array<string, list<string>>  $sums  columns of money that must add up alike, by the column whose values make groups
     * @param  array<string, array<string, string>>  $rates  what one of a quantity is worth, by that column and the quantity's
     * @param  list<array<string, mixed>>  $records  what must have a record in another dataset, as plans are written
     */
    public function __construct(
        public array $pairs = [],
        public array $blankTokens = [],
        public array $forms = [],
        public array $codes = [],
        public array $sums = [],
        public array $rates = [],
        public array $records = [],
    ) {}

    /** Whether the plan lets a cell pass whose only difference is of this cause. */
    public function lets(string $column, string $cause): bool
    {
        $rules = $this->pairs[$column] ?? [];

        return isset($rules[$cause]) || in_array($cause, (array) ($rules['forgives'] ?? []), true);
    }
}
