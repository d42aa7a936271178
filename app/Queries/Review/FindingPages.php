<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\RowFindingColumns;
use App\Models\Tally;
use App\Rulings\FindingGroup;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilterCounts;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\GroupKind;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;

/**
 * Pages of findings in source order. Each finding knows its place in its class or pattern; of other filters a count keeps where every
 * so many findings stand. So a page begins at any place of a list at once, and no page costs more than its own rows.
 */
final readonly class FindingPages
{
    /** Among so many findings a text or a ruling is looked for in order, before it is looked for everywhere. */
    private const NEAR = 50_000;

    public function __construct(
        private Connection $database,
        private FilteredFindings $findings,
        private FilterCounts $counts,
        private CarriedRulings $earlier,
    ) {}

    /**
     * Findings of a filter, from a place of its list on.
     *
     * @param  int  $from  counted from 1
     * @return array{items: list<RulableRow>|list<RulableCell>, total: int|null} the total is null while nobody has counted the filter
     */
    public function page(Tally $tally, Filter $filter, Mask $mask, int $from, int $limit): array
    {
        $order = $this->findings->order($filter);
        if ($filter->isPlain()) {
            return [
                'items' => $this->read(
                    $this->lines($tally, $filter)->where($order, '>=', $from)->orderBy($order)->limit($limit),
                    $tally,
                    $filter,
                    $mask,
                ),
                'total' => $this->total($tally, $filter),
            ];
        }
        $counted = $this->counts->known($tally, $filter);
        $places = $counted === null && $from === 1 ? $this->firstPlaces($tally, $filter, $limit) : null;
        if ($places === null) {
            $counted ??= $this->counts->found($tally, $filter);
            $places = $this->counts->stretch($tally, $filter, $counted, $from, $limit);
        }
        // Which findings they are is found before anything is joined to them: over so many tables the database would plan badly.
        $lines = $this->lines($tally, $filter->plain())->whereIntegerInRaw($order, $places)->orderBy($order);

        return ['items' => $this->read($lines, $tally, $filter, $mask), 'total' => $counted->findings ?? $this->total($tally, $filter)];
    }

    /**
     * Where the first findings of a filter stand that nobody has counted.
     *
     * @return list<int>|null null if they are found faster by counting
     */
    private function firstPlaces(Tally $tally, Filter $filter, int $limit): ?array
    {
        $order = $this->findings->order($filter);
        $first = $this->findings->query($tally, $filter, isStreamed: true)->limit($limit)->selectRaw("{$order} AS place");
        $near = fn(string $by): array => $this->placesIn($first->clone()->where($by, '<=', self::NEAR)->orderBy($by));
        if ($filter->text('text') !== null || $filter->followsRulings()) {
            $places = $near($order);

            // What is common is met soon. For what is rare all are looked at anyway, and then their places are known.
            return count($places) < $limit ? null : $places;
        }
        if ($filter->rowsOfKey() !== null && $filter->number('pattern') === null) {
            // By rows the index of the key comes in the right order, and has no others.
            if ($filter->isOfCells) {
                return $this->placesIn($first->orderBy('k.sequence')->orderBy($order));
            }
            $places = $near('f.sequence');
            if (count($places) === $limit) {
                return $places;
            }
        }

        return $this->placesIn($first->orderBy($order));
    }

    /** @return list<int> */
    private function placesIn(Builder $found): array
    {
        return array_values($found->get()->map(static fn(\stdClass $row): int => DatabaseRow::of($row)->int('place'))->all());
    }

    /**
     * The next findings of a filter in source order, for lists that are read to their end.
     *
     * @return list<RulableRow>|list<RulableCell>
     */
    public function after(Tally $tally, Filter $filter, Mask $mask, int $sequence, int $limit): array
    {
        $found = $this->findings
            ->query($tally, $filter, isStreamed: true)
            ->where('f.sequence', '>', $sequence)
            ->orderBy('f.sequence')
            ->limit($limit)
            ->select('f.sequence');

        return $this->read(
            $this->lines($tally, $filter->plain())->whereIn('f.sequence', $found->pluck('sequence'))->orderBy('f.sequence'),
            $tally,
            $filter,
            $mask,
        );
    }

    public function count(Tally $tally, Filter $filter): int
    {
        return $this->total($tally, $filter) ?? $this->counts->count($tally, $filter);
    }

    /** @return list<RulableRow>|list<RulableCell> */
    private function read(Builder $query, Tally $tally, Filter $filter, Mask $mask): array
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
        $layout = $mask->hidesAnything() ? $this->layout($tally) : null;

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

    private function lines(Tally $tally, Filter $filter): Builder
    {
        $query = $this->findings->query($tally, $filter);

        return $filter->isOfCells ? $this->cellLines($query) : $this->rowLines($query);
    }

    /** Of whole classes and patterns the tally knows; null of what has to be counted. */
    private function total(Tally $tally, Filter $filter): ?int
    {
        $class = $filter->text('class');

        return match (true) {
            ! $filter->isOfGroups() => null,
            $filter->isOfCells => $this->findings->cellsOfPatterns($tally, $filter),
            default => $class === null ? $this->allRows($tally) : $this->rowsOfClass($tally, RowClass::from($class)),
        };
    }

    /**
     * The differing cells of a stretch of rows, in the column order of the plan.
     *
     * @return array<int, list<RulableCell>> by the sequence of the row
     */
    public function cellsOfRows(Tally $tally, Mask $mask, int $first, int $last): array
    {
        $byRow = [];
        $cells = $this->read(
            $this->lines($tally, Filter::from(['of' => 'cells']))
                ->whereBetween('f.row_sequence', [$first, $last])
                ->orderBy('f.sequence'),
            $tally,
            Filter::from(['of' => 'cells']),
            $mask,
        );
        foreach ($cells as $cell) {
            if ($cell instanceof RulableCell) {
                $byRow[$cell->rowSequence][] = $cell;
            }
        }

        return $byRow;
    }

    public function row(Tally $tally, Mask $mask, int $sequence): RulableRow
    {
        $filter = Filter::from([]);
        $line = $this->read($this->lines($tally, $filter)->where('f.sequence', $sequence), $tally, $filter, $mask)[0] ?? null;

        return $line instanceof RulableRow ? $line : throw new ModelNotFoundException;
    }

    public function layout(Tally $tally): TallyColumns
    {
        $fields =
            $this->database
                ->table('tallies AS t')
                ->join('plan_versions AS p', 'p.id', 't.plan_version_id')
                ->join('deliveries AS s', 's.id', 't.source_delivery_id')
                ->join('deliveries AS d', 'd.id', 't.target_delivery_id')
                ->where('t.id', $tally->id)
                ->select(['p.document', 's.columns AS source_columns', 'd.columns AS target_columns'])
                ->selectRaw(
                    '(SELECT json_agg(file_name ORDER BY number) FROM delivery_parts '.
                        'WHERE delivery_id = s.id) AS source_files, (SELECT json_agg(file_name ORDER BY number) FROM delivery_parts '.
                        'WHERE delivery_id = d.id) AS target_files',
                )
                ->first() ?? throw new ModelNotFoundException;
        $row = DatabaseRow::of($fields);

        return TallyColumns::of(
            Plan::fromJson($row->text('document')),
            $row->cellsOrNull('source_columns') ?? [],
            $row->cellsOrNull('target_columns') ?? [],
            ['source' => $row->cellsOrNull('source_files') ?? [], 'target' => $row->cellsOrNull('target_files') ?? []],
        );
    }

    /**
     * Rows that did not agree and whose key begins with some text, as its canonical CSV says it.
     *
     * @return list<array{sequence: int, class: string, side: string|null, key: string}>
     */
    public function keys(Tally $tally, string $beginning, int $limit): array
    {
        $escaped = str_replace(['\\', '%', '_'], ['\\\\', '\%', '\_'], mb_substr($beginning, 0, 100));
        $found = $this->database->table('row_findings')
            ->where('tally_id', $tally->id)
            ->whereRaw('"left"(key, 100) LIKE ?', [$escaped.'%'])
            ->orderByRaw('"left"(key, 100) USING ~<~')
            ->limit($limit)
            ->select(['sequence', 'class', 'side', 'key'])
            ->get();

        return array_values(
            $found->map(static function (\stdClass $fields): array {
                $row = DatabaseRow::of($fields);

                return [
                    'sequence' => $row->int('sequence'),
                    'class' => $row->text('class'),
                    'side' => $row->textOrNull('side'),
                    'key' => $row->text('key'),
                ];
            })
                ->all(),
        );
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
                'f.target_value', 'r.key', 'r.source_line', 'r.target_line',
            ])
            ->tap(fn(Builder $query) => $this->withStanding($query, GroupKind::Pattern));
    }

    /** Adds what stands for each finding. */
    private function withStanding(Builder $query, GroupKind $kind): void
    {
        $query->leftJoin('standings AS s', static fn(JoinClause $join) => $join->whereRaw($kind->inBlock('f', 's')))
            ->selectRaw("{$kind->decision('f', 's')} AS decided, {$kind->act('f', 's')} AS ruling_id");
    }

    private function rowsOfClass(Tally $tally, RowClass $class): int
    {
        ['source' => $source, 'target' => $target] = $tally->summary['rows'];

        return match ($class) {
            RowClass::Repeated, RowClass::Unkeyed, RowClass::Refused => $source[$class->value] + $target[$class->value],
            RowClass::Extra => $target[$class->value],
            RowClass::Agreed, RowClass::Changed, RowClass::Missing => $source[$class->value] ?? 0,
        };
    }

    private function allRows(Tally $tally): int
    {
        return array_sum(
            array_map(fn(RowClass $class): int => $class === RowClass::Agreed ? 0 : $this->rowsOfClass($tally, $class), RowClass::cases()),
        );
    }
}
