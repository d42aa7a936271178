<?php

declare(strict_types=1);

namespace Database\Demo;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;

/** What the generator needs to know of one dataset. */
final readonly class DemoDataset
{
    /** The column that says which office a row came from. */
    public const ORIGIN = 'office';

    /**
     * @param  list<string>  $key  source names
     * @param  array<string, string>  $columns  source name => target name; '' where the target has none
     * @param  list<string>  $targetOnly
     * @param  \Closure(int): array<string, string>  $row  the true row with a number, by source name
     * @param  list<Planted>  $planted
     * @param  array{missing: int, extra: int, repeatedInSource: int, repeatedInTarget: int, repeatedInBoth: int, repeatedInSourceOnly: int,
     *     unkeyedInSource: int, unkeyedInTarget: int}  $rowsPlanted
     * @param  list<string>  $refusedInSource  raw records, which are no rows
     * @param  list<string>  $refusedInTarget
     * @param  non-empty-string  $sourceDelimiter
     * @param  non-empty-string  $targetDelimiter
     * @param  non-empty-string  $sourceLineEnd
     * @param  array<string, array<string, mixed>>  $rules  by source column: what the plan of the demo says of the pair, as plans are
     *     written
     * @param  list<string>  $blankTokens  that both sides declare
     * @param  array<string, array<string, mixed>>  $forms  by target column: how the new system writes it where that has to be declared
     * @param  array<string, array<string, string>>  $codes  by source column: what the new system has for each of its values
     * @param  array<string, string>  $parts  file of the source => the office that handed it over; none: the source is one file
     * @param  string|null  $totalled  the column whose sum the last record of each part says, behind the number of its rows
     */
    public function __construct(
        public string $name,
        public int $rows,
        public array $key,
        public array $columns,
        public array $targetOnly,
        public \Closure $row,
        public array $planted,
        public array $rowsPlanted,
        public array $refusedInSource,
        public array $refusedInTarget,
        public string $sourceDelimiter = ',',
        public string $targetDelimiter = ',',
        public string $sourceLineEnd = "\n",
        public string $targetBeginning = '',
        public array $rules = [],
        public array $blankTokens = [],
        public array $forms = [],
        public array $codes = [],
        public array $parts = [],
        public ?string $totalled = null,
    ) {}

    /** Whether the plan lets a cell pass whose only difference is of this cause. */
    public function lets(string $column, string $cause): bool
    {
        $rules = $this->rules[$column] ?? [];

        return isset($rules[$cause]) || in_array($cause, (array) ($rules['forgives'] ?? []), true);
    }

    /** @return array<string, mixed> the plan that compares both sides, as plans are written */
    public function plan(): array
    {
        $pairs = [];
        foreach ($this->columns as $source => $target) {
            if ($target !== '' && ! in_array($source, $this->key, true)) {
                $pairs[] = [...ColumnPair::between($source, $target)->toArray(), ...($this->rules[$source] ?? [])];
            }
        }
        $side = array_filter(['blankTokens' => $this->blankTokens]);
        $target = $side + array_filter(['columns' => $this->forms]);

        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => array_map(fn(string $name): array => ['source' => $name, 'target' => $this->columns[$name]], $this->key),
            'columnPairs' => $pairs,
            'leftOut' => [
                'source' => [...array_keys($this->columns, '', true), ...$this->parts === [] ? [] : [self::ORIGIN]],
                'target' => $this->targetOnly,
            ],
            ...array_filter(['sides' => array_filter(['source' => $side, 'target' => $target])]),
        ];
    }
}
