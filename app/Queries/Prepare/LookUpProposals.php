<?php

declare(strict_types=1);

namespace App\Queries\Prepare;

use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Models\Dataset;
use App\Models\Delivery;
use NineTally\Core\Advice\LookUpAdvice;
use NineTally\Core\Advice\LookUpLadder;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Preparation\ColumnIndex;
use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * In which datasets of the migration the rows that come to a step probably find records, by which columns, how many of them find one as
 * their values are written, and what of form keeps the others apart. Only counted: no value leaves the server.
 *
 * @phpstan-import-type Rung from LookUpLadder
 */
final readonly class LookUpProposals
{
    /** Rows of the sample that are held against references. */
    private const ROWS = 1_000;

    /** Larger datasets are hardly looked up from, and reading them takes longer than somebody waits. */
    private const MOST_RECORDS = 100_000;

    private const MOST_DATASETS = 20;

    private const MOST_PROPOSALS = 5;

    public function __construct(private DeliverySample $sample, private PreparedSides $sides) {}

    /**
     * @param  string|null  $step  that looks up; null: it will be the last
     * @return list<array{reference: string, on: list<array{column: string, reference: string}>, columns: list<string>, rows: int,
     *     found: int, several: int, rungs: list<Rung>}>
     */
    public function of(Dataset $dataset, Delivery $delivery, SideRules $rules, ?string $step): array
    {
        $before = $rules->before($step);
        $forms = $rules->preparation->formsInto($rules->preparation->numberOf($step));
        ['columns' => $columns, 'rows' => $rows] = $this->sample->prepared($delivery, $before, self::ROWS);
        $advice = new LookUpAdvice($columns, $rows);
        $workspace = Workspace::make();
        $proposals = [];
        try {
            foreach ($this->references($dataset, $delivery, $before, $workspace->path) as $name => $table) {
                $found = $advice->of($table->columns, $table->rows);
                if ($found !== null) {
                    $proposals[] = [
                        'reference' => $name,
                        'on' => $found['on'],
                        'columns' => array_values(array_diff($table->columns, array_column($found['on'], 'reference'))),
                        'rows' => count($rows),
                        ...$this->ladder($found['on'], $columns, $rows, $forms, $table)->steps(),
                    ];
                }
            }
        } finally {
            $workspace->remove();
        }
        usort($proposals, static fn(array $one, array $other): int => $other['found'] <=> $one['found']);

        return array_slice($proposals, 0, self::MOST_PROPOSALS);
    }

    /** @return iterable<string, ReferenceTable> by name */
    private function references(Dataset $dataset, Delivery $delivery, SideRules $before, string $folder): iterable
    {
        $others = $dataset->migration
            ->datasets()
            ->whereKeyNot([$dataset->id, $delivery->dataset_id])
            ->orderBy('name')
            ->limit(self::MOST_DATASETS)
            ->get();
        foreach ($others as $other) {
            $latest = PreparationInputs::deliveryOf($dataset, $other->name);
            if ($latest === null || $latest->delivered_count > self::MOST_RECORDS) {
                continue;
            }
            $inputs = new PreparationInputs($dataset->parameters, [$other->name => $latest->id]);
            try {
                yield $other->name => $this->sides->references($inputs, $before->preparation, $folder)->named($other->name);
            } catch (NineTallyException) {
                // Its own steps do not fit it: whoever looks up from it is told.
                continue;
            }
        }
    }

    /**
     * @param  non-empty-list<array{column: string, reference: string}>  $on
     * @param  list<string>  $columns
     * @param  list<list<string>>  $rows
     */
    private function ladder(array $on, array $columns, array $rows, DeclaredForms $forms, ReferenceTable $table): LookUpLadder
    {
        return new LookUpLadder(
            self::keys($rows, ColumnIndex::of($columns)->all(array_column($on, 'column'))),
            self::keys($table->rows, $table->places(array_column($on, 'reference'))),
            array_map(static fn(array $pair): Reading => $forms->reading($pair['column'], Kind::Text), $on),
            array_map(static fn(array $pair): Reading => $table->forms->reading($pair['reference'], Kind::Text), $on),
        );
    }

    /**
     * @param  list<list<string>>  $rows
     * @param  list<int>  $places
     * @return list<list<string>>
     */
    private static function keys(array $rows, array $places): array
    {
        return array_map(static fn(array $cells): array => array_map(static fn(int $place): string => $cells[$place], $places), $rows);
    }
}
