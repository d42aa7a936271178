<?php

declare(strict_types=1);

namespace Database\Demo;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\Plan;

/** What the generator needs to know of one dataset. */
final readonly class DemoDataset
{
    /** @param \Closure(int): array<string, string> $row the true row with a number, by source name */
    public function __construct(
        public string $name,
        public int $rows,
        public DemoColumns $columns,
        public \Closure $row,
        public DemoFaults $faults,
        public DemoRules $rules = new DemoRules,
        public DemoFiles $files = new DemoFiles,
        public ?DrawnFrom $drawn = null,
    ) {}

    /** @return list<array<string, mixed>> rows and sums of money, by group */
    private function totals(): array
    {
        $totals = [];
        foreach ($this->rules->sums as $by => $columns) {
            $group = ['by' => [['source' => $by, 'target' => $this->columns->names[$by]]]];
            foreach ($columns as $column) {
                $totals[] = ['measure' => 'sum', 'source' => $column, 'target' => $this->columns->names[$column], ...$group];
            }
            $totals[] = ['measure' => 'rows', ...$group];
        }

        foreach ($this->rules->rates as $by => $rates) {
            foreach ($rates as $column => $rate) {
                $totals[] = [
                    'measure' => 'sum',
                    'source' => $column,
                    'target' => $this->columns->names[$column],
                    'by' => [['source' => $by, 'target' => $this->columns->names[$by]]],
                    'times' => ['constant' => $rate],
                ];
            }
        }

        return $totals;
    }

    /** @return array<string, mixed> the plan that compares both sides, as plans are written */
    public function plan(): array
    {
        $pairs = [];
        foreach ($this->columns->names as $source => $target) {
            if ($target !== '' && ! in_array($source, $this->columns->key, true)) {
                $pairs[] = [...ColumnPair::between($source, $target)->toArray(), ...($this->rules->pairs[$source] ?? [])];
            }
        }
        $side = array_filter(['blankTokens' => $this->rules->blankTokens]);
        $target = $side + array_filter(['columns' => $this->rules->forms]);

        return [
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => array_map(
                fn(string $name): array => ['source' => $name, 'target' => $this->columns->names[$name]],
                $this->columns->key,
            ),
            'columnPairs' => $pairs,
            'leftOut' => [
                'source' => [...array_keys($this->columns->names, '', true), ...$this->files->parts === [] ? [] : [DemoFiles::PART_LABEL]],
                'target' => $this->columns->targetOnly,
            ],
            ...array_filter([
                'sides' => array_filter(['source' => $side, 'target' => $target]),
                'totals' => $this->totals(),
                'records' => $this->rules->records,
            ]),
        ];
    }
}
