<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Rulings\FindingSet\CancellableSearch;
use App\Rulings\FindingSet\Filter;
use App\Rulings\FindingSet\FilterCounts;
use App\Rulings\FindingSet\FilteredFindings;
use App\Rulings\FindingSet\FindingOrder;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\Query\Builder;
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
        private FindingLines $lines,
        private CancellableSearch $search,
    ) {}

    /**
     * Findings of a filter, from a place of its list on.
     *
     * @param  int  $from  counted from 1
     * @param  FindingOrder|null  $by  of cells; null for the order of the source
     * @return array{items: list<RulableRow>|list<RulableCell>, total: int|null} the total is null while nobody has counted the filter
     */
    public function page(Tally $tally, Filter $filter, Mask $mask, int $from, int $limit, ?FindingOrder $by = null): array
    {
        if ($by !== null) {
            return $this->sorted($tally, $filter, $mask, $from, $limit, $by);
        }
        $order = $this->findings->order($filter);
        if ($filter->isPlain()) {
            return [
                'items' => $this->lines->read(
                    $this->lines->of($tally, $filter)->where($order, '>=', $from)->orderBy($order)->limit($limit),
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
        $lines = $this->lines->of($tally, $filter->plain())->whereIntegerInRaw($order, $places)->orderBy($order);

        return [
            'items' => $this->lines->read($lines, $tally, $filter, $mask),
            'total' => $counted->findings ?? $this->total($tally, $filter),
        ];
    }

    /**
     * By what cells differ by: all are looked at, and the place in the list is counted off.
     *
     * @return array{items: list<RulableRow>|list<RulableCell>, total: int|null}
     */
    private function sorted(Tally $tally, Filter $filter, Mask $mask, int $from, int $limit, FindingOrder $by): array
    {
        $places = $this->search->replacingPrevious(
            $filter->digest(),
            fn(): array => $this->placesIn(
                $this->findings
                    ->query($tally, $filter)
                    ->orderByRaw($by->sql())
                    ->offset($from - 1)
                    ->limit($limit)
                    ->selectRaw('f.sequence AS place'),
            ),
        );
        $lines = $this->lines->of($tally, $filter->plain())->whereIntegerInRaw('f.sequence', $places)->orderByRaw($by->sql());

        return [
            'items' => $this->lines->read($lines, $tally, $filter, $mask),
            'total' => $this->counts->known($tally, $filter)->findings ?? $this->total($tally, $filter),
        ];
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
        if ($filter->text('text') !== null || $filter->followsRulings() || $filter->asksForDifferences()) {
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

        return $this->lines->read(
            $this->lines->of($tally, $filter->plain())->whereIntegerInRaw('f.sequence', $found->pluck('sequence'))->orderBy('f.sequence'),
            $tally,
            $filter,
            $mask,
        );
    }

    /**
     * Where a finding stands in the list of a filter.
     *
     * @param  int  $sequence  of the finding, which never changes within its tally
     * @return int|null counted from 1; null where it is not in the list
     */
    public function placeOf(Tally $tally, Filter $filter, int $sequence): ?int
    {
        $order = $this->findings->order($filter);
        $found = $this->findings->query($tally, $filter)->where('f.sequence', $sequence)->selectRaw("{$order} AS place")->first();
        if (! $found instanceof \stdClass) {
            return null;
        }
        $at = DatabaseRow::of($found)->int('place');

        return $filter->isPlain() ? $at : $this->findings->query($tally, $filter)->where($order, '<=', $at)->count();
    }

    public function count(Tally $tally, Filter $filter): int
    {
        return $this->total($tally, $filter) ?? $this->counts->count($tally, $filter);
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
        $cells = $this->lines->read(
            $this->lines->of($tally, Filter::from(['of' => 'cells']))
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
        $line = $this->lines->read($this->lines->of($tally, $filter)->where('f.sequence', $sequence), $tally, $filter, $mask)[0] ?? null;

        return $line instanceof RulableRow ? $line : throw new ModelNotFoundException;
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
