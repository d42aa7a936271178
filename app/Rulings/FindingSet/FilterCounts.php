<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Adapters\Database\DatabaseRow;
use App\Models\Ruling;
use App\Models\Tally;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;

/**
 * How many findings a filter means, and where they stand, so that a list of any length can be entered anywhere. Found in one pass, and
 * kept until somebody rules, if the filter asks for rulings.
 */
final readonly class FilterCounts
{
    /** Findings between two checkpoints that are found in order: as many as a page has. */
    private const STEP = 200;

    /** @param int $all of lists that are no longer, every place is kept: they may lie as far from each other as they like */
    public function __construct(
        private Connection $database,
        private FilteredFindings $findings,
        private GroupCounts $groups,
        private CancellableSearch $search,
        private int $all = 20_000,
    ) {}

    public function count(Tally $tally, Filter $filter): int
    {
        return ($this->known($tally, $filter) ?? $this->found($tally, $filter))->findings;
    }

    /**
     * Where the findings of a stretch of the list stand, in its order.
     *
     * @param  int  $from  counted from 1
     * @return list<int>
     */
    public function stretch(Tally $tally, Filter $filter, FilterCount $counted, int $from, int $limit): array
    {
        $places = $counted->places($from, $limit);
        if ($places !== null) {
            return $places;
        }
        $order = $this->findings->order($filter);
        [$begin, $passed, $end] = $counted->bounds($from, $limit);
        $found = $this->findings->query($tally, $filter, isStreamed: true)->where($order, '>=', $begin)
            ->when($end !== null, static fn(Builder $bounded) => $bounded->where($order, '<', $end))
            ->orderBy($order)->offset($passed)->limit($limit)->selectRaw("{$order} AS place")->get();

        return array_values($found->map(static fn(\stdClass $row): int => DatabaseRow::of($row)->int('place'))->all());
    }

    /** Null if it has yet to be looked for. */
    public function known(Tally $tally, Filter $filter): ?FilterCount
    {
        $fields = $this->database->table('counted_filters')->where($this->name($tally, $filter))->first();
        $row = $fields === null ? null : DatabaseRow::of($fields);

        return $row === null ? null : FilterCount::fromJson($row->int('findings'), $row->text('places'));
    }

    public function found(Tally $tally, Filter $filter): FilterCount
    {
        $name = $this->name($tally, $filter);
        $found = $this->search->replacingPrevious(
            $name['digest'],
            fn(): FilterCount => $this->groups->of($tally, $filter, $this->all) ?? $this->byPlaces($tally, $filter),
        );
        // Of what was counted before others ruled, nothing is of use any more.
        $this->database
            ->table('counted_filters')
            ->where('tally_id', $tally->id)
            ->where('latest_act', '>', 0)
            ->where('latest_act', '<', $name['latest_act'])
            ->delete();
        $this->database
            ->table('counted_filters')
            ->insertOrIgnore([...$name, 'findings' => $found->findings, 'places' => $found->toJson(), 'counted_at' => now()]);

        return $found;
    }

    private function byPlaces(Tally $tally, Filter $filter): FilterCount
    {
        $branches = $this->findings->places($tally, $filter);
        $union = array_reduce(
            array_slice($branches, 1),
            static fn(Builder $one, Builder $other): Builder => $one->union($other),
            $branches[0],
        );
        $listed = $this->database->query()->fromSub($union, 'meant')->selectRaw('place, row_number() OVER (ORDER BY place) AS nth');
        $row = DatabaseRow::of(
            $this->database
                ->query()
                ->fromSub($listed, 'listed')
                ->selectRaw(
                    "count(*) AS findings, coalesce(CASE WHEN count(*) <= ? THEN json_agg(place ORDER BY nth) FILTER (WHERE nth <= ?) ".
                        "ELSE json_agg(json_build_array(place, nth - 1) ORDER BY nth) FILTER (WHERE nth % ? = 1) END, '[]')::text AS ".
                        "places",
                    [$this->all, $this->all, self::STEP],
                )
                ->first() ?? new \stdClass,
        );

        return FilterCount::fromJson($row->int('findings'), $row->text('places'));
    }

    /** @return array{tally_id: int, digest: string, latest_act: int} */
    private function name(Tally $tally, Filter $filter): array
    {
        return [
            'tally_id' => $tally->id,
            'digest' => $filter->digest(),
            'latest_act' => $filter->followsRulings() ? Ruling::newestOn($tally) : 0,
        ];
    }
}
