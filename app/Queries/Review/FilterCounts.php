<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Ruling;
use App\Models\Tally;
use Illuminate\Database\Connection;

/**
 * How many findings a filter means, and where every so many of them stand, so that a list of any length can be entered anywhere. Found
 * in one pass, and kept until somebody rules, if the filter asks for rulings.
 */
final readonly class FilterCounts
{
    /** Findings between two places that are kept: as many as a page has. */
    private const STEP = 200;

    public function __construct(private Connection $database, private FilteredFindings $findings) {}

    public function count(Tally $tally, Filter $filter): int
    {
        return $this->of($tally, $filter)['findings'];
    }

    /** What count() found before; null if it has yet to be asked. */
    public function known(Tally $tally, Filter $filter): ?int
    {
        return $this->kept($tally, $filter)['findings'] ?? null;
    }

    /**
     * Between which values of the list's order a page lies.
     *
     * @param  int  $from  counted from 1
     * @return array{int, int|null, int} where to begin, where to end, and how many findings to leave out first
     */
    public function stretch(Tally $tally, Filter $filter, int $from, int $limit): array
    {
        $places = $this->of($tally, $filter)['places'];
        $first = intdiv($from - 1, self::STEP);

        return [$places[$first] ?? PHP_INT_MAX, $places[intdiv($from - 2 + $limit, self::STEP) + 1] ?? null, ($from - 1) % self::STEP];
    }

    /** @return array{findings: int, places: list<int>} */
    private function of(Tally $tally, Filter $filter): array
    {
        return $this->kept($tally, $filter) ?? $this->found($tally, $filter);
    }

    /** @return array{findings: int, places: list<int>}|null */
    private function kept(Tally $tally, Filter $filter): ?array
    {
        $row = $this->database->table('counted_filters')->where($this->name($tally, $filter))->first();

        return $row === null ? null : $this->read($row);
    }

    /** @return array{findings: int, places: list<int>} */
    private function found(Tally $tally, Filter $filter): array
    {
        $name = $this->name($tally, $filter);
        $order = $this->findings->order($filter);
        $inOrder = $this->findings->query($tally, $filter)->selectRaw("{$order} AS place, row_number() OVER (ORDER BY {$order}) AS nth");
        $row = $this->database->query()->fromSub($inOrder, 'listed')
            ->selectRaw("count(*) AS findings, coalesce(json_agg(place ORDER BY place) FILTER (WHERE nth % ? = 1), '[]')::text AS places", [self::STEP])->first() ?? new \stdClass;
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
