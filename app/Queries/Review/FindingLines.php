<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\RowFindingColumns;
use App\Models\Tally;
use App\Rulings\FindingGroup;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\GroupKind;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Row\Side;

/** Findings of a tally as they are shown: with the row and the pattern that they belong to, what stands for each, and what is masked. */
final readonly class FindingLines
{
    public function __construct(private FilteredFindings $findings, private CarriedRulings $earlier) {}

    /** @return list<RulableRow>|list<RulableCell> */
    public function read(Builder $query, Tally $tally, Filter $filter, Mask $mask): array
    {
        $found = array_map(DatabaseRow::of(...), array_values($query->get()->all()));
        $groups = [];
        foreach ($found as $row) {
            $groups[$row->int('sequence')] = (
                $filter->isOfCells
                ? FindingGroup::ofPattern($row->int('pattern_number'))
                : FindingGroup::ofClass(RowClass::from($row->text('class')))
            )->name();
        }
        $earlier = $this->earlier->of($tally->id, $groups);
        if ($filter->isOfCells) {
            return $this->masked(
                array_map(
                    static fn(DatabaseRow $row): RulableCell => RulableCell::fromDatabase($row, $earlier[$row->int('sequence')] ?? null),
                    $found,
                ),
                $tally,
                $mask,
            );
        }
        $rows = array_map(
            static fn(DatabaseRow $row): RulableRow => new RulableRow(
                RowFindingColumns::read($row),
                Standing::fromDatabase($row, $earlier[$row->int('sequence')] ?? null),
            ),
            $found,
        );
        $layout = $mask->hidesAnything() ? TallyColumns::ofTally($tally) : null;

        return $layout === null
            ? $rows
            : array_map(
                static fn(RulableRow $row): RulableRow => new RulableRow($mask->row($row->finding, $layout), $row->standing),
                $rows,
            );
    }

    /**
     * @param  list<RulableCell>  $cells
     * @return list<RulableCell>
     */
    private function masked(array $cells, Tally $tally, Mask $mask): array
    {
        if (! $mask->hidesAnything()) {
            return $cells;
        }
        $columns = $tally->planVersion->plan()->pairedNames(Side::Source);

        return array_map(static fn(RulableCell $cell): RulableCell => $mask->cell($cell, $columns), $cells);
    }

    public function of(Tally $tally, Filter $filter): Builder
    {
        $query = $this->findings->query($tally, $filter);

        return $filter->isOfCells ? $this->cellLines($query) : $this->rowLines($query);
    }

    private function rowLines(Builder $query): Builder
    {
        return $query
            ->select(array_map(static fn(string $column): string => "f.{$column}", RowFindingColumns::names()))
            ->tap(fn(Builder $query) => $this->withStanding($query, GroupKind::RowClass));
    }

    private function cellLines(Builder $query): Builder
    {
        return $query
            ->join(
                'row_findings AS r',
                static fn(JoinClause $join) => $join->on('r.tally_id', 'f.tally_id')->on('r.sequence', 'f.row_sequence'),
            )
            ->join(
                'patterns AS p',
                static fn(JoinClause $join) => $join->on('p.tally_id', 'f.tally_id')->on('p.number', 'f.pattern_number'),
            )
            ->select([
                'f.sequence', 'f.pattern_number', 'f.row_sequence', 'f.pair_position', 'f.class', 'f.cause', 'p.facts', 'f.source_value',
                'f.target_value', 'f.difference', 'f.relative_difference', 'r.key', 'r.source_line', 'r.target_line',
            ])
            ->tap(fn(Builder $query) => $this->withStanding($query, GroupKind::Pattern));
    }

    /** Adds what stands for each finding. */
    private function withStanding(Builder $query, GroupKind $kind): void
    {
        $query->leftJoin('standings AS s', static fn(JoinClause $join) => $join->whereRaw($kind->inBlock('f', 's')))
            ->selectRaw("{$kind->decision('f', 's')} AS decided, {$kind->act('f', 's')} AS ruling_id");
    }
}
