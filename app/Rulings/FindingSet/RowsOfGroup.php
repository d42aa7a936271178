<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Models\TotalGroup;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\TotalColumns;

/**
 * Rows that a group of a control total is made of, or that went to another group. Groups meet as the pairs of their columns say, so what
 * stands in the rows is looked at once, and what meets the group becomes the condition.
 */
final readonly class RowsOfGroup
{
    public function __construct(private Connection $database) {}

    /** @param string $table of rows, as the query names it */
    public function narrow(Builder $query, string $table, Tally $tally, Filter $filter): void
    {
        $group = $this->group($tally, $filter);
        if ($group === null) {
            $query->whereRaw('false');

            return;
        }
        $total = $group->total()->total();
        $columns = [];
        foreach (Side::cases() as $side) {
            $plan = $tally->planVersion->plan();
            $delivered = $side === Side::Source ? $tally->sourceDelivery->columns : $tally->targetDelivery->columns;
            $names = Columns::named($side->value, $plan->side($side)->preparation->columns($delivered));
            $columns[$side->value] = new TotalColumns($total, $side, $plan, $names, (new CauseCatalogue)->forms);
        }
        $met = $columns[$group->figures['onlyOn'] ?? 'source']->meetsLabels($group->figures['labels']);
        $in = [];
        foreach (Side::cases() as $side) {
            $ofSide = $columns[$side->value];
            $cells = array_map(static fn(int $place): string => "{$side->value}_cells->>{$place}", $ofSide->groupPlaces);
            $written = $this->written($tally, $filter, $side, $ofSide, $cells, $met);
            $in[$side->value] = $this->condition(array_map(static fn(string $cell): string => "{$table}.{$cell}", $cells), $written);
        }
        $this->narrowTo($query, $table, $in, $filter->text('moved') !== null);
    }

    /** @param array{source: array{string, list<string>}, target: array{string, list<string>}} $in whether a side is in the group */
    private function narrowTo(Builder $query, string $table, array $in, bool $isMoved): void
    {
        [[$source, $ofSource], [$target, $ofTarget]] = array_values($in);
        [$noSource, $noTarget] = ["{$table}.source_cells IS NULL", "{$table}.target_cells IS NULL"];
        $isMoved
            ? $query->whereRaw("NOT ({$noSource}) AND NOT ({$noTarget}) AND ({$source}) <> ({$target})", [...$ofSource, ...$ofTarget])
            : $query->whereRaw("({$noSource} OR {$source}) AND ({$noTarget} OR {$target}) AND NOT ({$noSource} AND {$noTarget})", [
                ...$ofSource,
                ...$ofTarget,
            ]);
    }

    private function group(Tally $tally, Filter $filter): ?TotalGroup
    {
        return TotalGroup::query()
            ->where(['tally_id' => $tally->id, 'number' => $filter->number('total'), 'place' => $filter->number('group')])
            ->first();
    }

    /**
     * @param  list<string>  $cells  expressions of the group columns
     * @return list<list<string>> what stands in the rows of a side and meets the group
     */
    private function written(Tally $tally, Filter $filter, Side $side, TotalColumns $columns, array $cells, string $met): array
    {
        $class = $filter->isOfCells ? 'changed' : $filter->text('class');
        $found = $this->database->table('row_findings')->where('tally_id', $tally->id)->whereNotNull("{$side->value}_cells")
            ->when($class !== null, static fn(Builder $rows) => $rows->where('class', $class))
            ->distinct()
            ->selectRaw(
                implode(', ', array_map(static fn(string $cell, int $nth): string => "{$cell} AS cell_{$nth}", $cells, array_keys($cells))),
            )
            ->get();
        $written = [];
        foreach ($found as $fields) {
            $row = DatabaseRow::of($fields);
            $tuple = array_map(static fn(int $nth): string => $row->text("cell_{$nth}"), array_keys($cells));
            if ($columns->meets(implode(KeyTuple::SEPARATOR, $tuple)) === $met) {
                $written[] = $tuple;
            }
        }

        return $written;
    }

    /**
     * @param  list<string>  $cells
     * @param  list<list<string>>  $written
     * @return array{string, list<string>} with its bindings
     */
    private function condition(array $cells, array $written): array
    {
        if ($written === []) {
            return ['false', []];
        }
        $tuple = '('.implode(', ', array_fill(0, count($cells), '?')).')';

        return [
            '('.implode(', ', $cells).') IN ('.implode(', ', array_fill(0, count($written), $tuple)).')',
            array_merge(...$written),
        ];
    }
}
