<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Limits\Limit;
use NineTally\Core\Profile\ColumnConstraint;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;

/**
 * What a plan says of single columns, whether they are paired or not, and of the figures that come of them.
 *
 * @phpstan-import-type DemandDocument from ColumnConstraint
 */
final readonly class ColumnRules
{
    /**
     * @param  array<string, DemandDocument>  $demands  by target column
     * @param  list<string>  $defaultForgives  causes of form that a pair forgives when it is made
     * @param  array{source: list<string>, target: list<string>}  $sensitive  columns whose values are shown to those alone who may see them
     * @param  list<ControlTotal>  $totals  figures of columns that both sides must have in common
     * @param  list<RequiredRecord>  $records  columns whose values must have a record in another dataset
     * @param  list<Limit>  $limits  the worst values that are still acceptable
     */
    public function __construct(
        public array $demands = [],
        public array $defaultForgives = [],
        public array $sensitive = ['source' => [], 'target' => []],
        public array $totals = [],
        public array $records = [],
        public array $limits = [],
    ) {}

    /** @return array<string, string> place in the plan => the column of that side that is named there */
    public function namesByPlace(Side $side): array
    {
        $names = [];
        foreach ($side === Side::Target ? array_keys($this->demands) : [] as $name) {
            $names['/demands/'.strtr((string) $name, ['~' => '~0', '/' => '~1'])] = (string) $name;
        }
        foreach (['totals' => $this->totals, 'records' => $this->records] as $part => $rules) {
            foreach ($rules as $number => $rule) {
                foreach ($rule->namesByPlace($side) as $place => $name) {
                    $names["/{$part}/{$number}{$place}"] = $name;
                }
            }
        }

        return $names;
    }

    /**
     * Once only pairs could be flagged, which meant the columns of both sides.
     *
     * @param  list<array{source: string, target: string, sensitive?: bool, ...}>  $pairs
     * @param  array{source?: list<string>, target?: list<string>}  $sensitive
     * @return array{source: list<string>, target: list<string>}
     */
    public static function sensitive(array $pairs, array $sensitive): array
    {
        $flagged = array_filter($pairs, static fn(array $pair): bool => $pair['sensitive'] ?? false);

        return [
            'source' => array_values(array_unique([...$sensitive['source'] ?? [], ...array_column($flagged, 'source')])),
            'target' => array_values(array_unique([...$sensitive['target'] ?? [], ...array_column($flagged, 'target')])),
        ];
    }
}
