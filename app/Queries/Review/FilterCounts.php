<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Ruling;
use App\Models\Tally;
use Illuminate\Database\Connection;
use Illuminate\Database\Query\Builder;

/**
 * How many findings a filter means, and where every so many of them stand, so that a list of any length can be entered anywhere. Found
 * in one pass, and kept until somebody rules, if the filter asks for rulings.
 */
final readonly class FilterCounts
{
    /** Findings between two places that are kept: as many as a page has. */
    private const STEP = 200;

    /** Of lists that are no longer, every place is kept: they may lie as far from each other as they like. */
    private const ALL = 20_000;

    public function __construct(private Connection $database, private FilteredFindings $findings) {}

    public function count(Tally $tally, Filter $filter): int
    {
        return ($this->known($tally, $filter) ?? $this->found($tally, $filter))['findings'];
    }

    /**
     * Where the findings of a stretch of the list stand, in its order.
     *
     * @param  array{findings: int, places: list<int>}  $counted
     * @param  int  $from  counted from 1
     * @return list<int>
     */
    public function stretch(Tally $tally, Filter $filter, array $counted, int $from, int $limit): array
    {
        $order = $this->findings->order($filter);
        ['findings' => $findings, 'places' => $places] = $counted;
        if (count($places) === $findings) {
            return array_slice($places, $from - 1, $limit);
        }
        $end = $places[intdiv($from - 2 + $limit, self::STEP) + 1] ?? null;
        $found = $this->findings->query($tally, $filter, asTheyCome: true)->where($order, '>=', $places[intdiv($from - 1, self::STEP)] ?? PHP_INT_MAX)
            ->when($end !== null, static fn(Builder $bounded) => $bounded->where($order, '<', $end))
            ->orderBy($order)->offset(($from - 1) % self::STEP)->limit($limit)->selectRaw("{$order} AS place")->get();

        return array_values($found->map(static fn(\stdClass $row): int => DatabaseRow::of($row)->int('place'))->all());
    }

    /** @return array{findings: int, places: list<int>}|null what was found before; null if it has yet to be looked for */
    public function known(Tally $tally, Filter $filter): ?array
    {
        $row = $this->database->table('counted_filters')->where($this->name($tally, $filter))->first();

        return $row === null ? null : $this->read($row);
    }

    /** @return array{findings: int, places: list<int>} */
    public function found(Tally $tally, Filter $filter): array
    {
        $name = $this->name($tally, $filter);
        $order = $this->findings->order($filter);
        $branches = array_map(static fn(Builder $branch): Builder => $branch->selectRaw("{$order} AS place"), $this->findings->branches($tally, $filter));
        $union = array_reduce(array_slice($branches, 1), static fn(Builder $one, Builder $other): Builder => $one->union($other), $branches[0]);
        $listed = $this->database->query()->fromSub($union, 'meant')->selectRaw('place, row_number() OVER (ORDER BY place) AS nth');
        $row = $this->database->query()->fromSub($listed, 'listed')->selectRaw(
            "count(*) AS findings, coalesce(CASE WHEN count(*) <= ? THEN json_agg(place ORDER BY nth) FILTER (WHERE nth <= ?) ELSE json_agg(place ORDER BY nth) FILTER (WHERE nth % ? = 1) END, '[]')::text AS places",
            [self::ALL, self::ALL, self::STEP],
        )->first() ?? new \stdClass;
        $found = $this->read($row);
        // Of what was counted before others ruled, nothing is of use any more.
        $this->database->table('counted_filters')->where('tally_id', $tally->id)->where('latest_act', '>', 0)->where('latest_act', '<', $name['latest_act'])->delete();
        $this->database->table('counted_filters')->insertOrIgnore([...$name, 'findings' => $found['findings'], 'places' => json_encode($found['places'], JSON_THROW_ON_ERROR), 'counted_at' => now()]);

        return $found;
    }

    /** @return array{tally_id: int, digest: string, latest_act: int} */
    private function name(Tally $tally, Filter $filter): array
    {
        return ['tally_id' => $tally->id, 'digest' => $filter->digest(), 'latest_act' => $filter->followsRulings() ? Ruling::newestOn($tally) : 0];
    }

    /** @return array{findings: int, places: list<int>} */
    private function read(\stdClass $fields): array
    {
        $row = DatabaseRow::of($fields);
        /** @var list<int> $places */
        $places = json_decode($row->text('places'), true, 4, JSON_THROW_ON_ERROR);

        return ['findings' => $row->int('findings'), 'places' => $places];
    }
}
