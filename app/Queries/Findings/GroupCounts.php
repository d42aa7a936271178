<?php

declare(strict_types=1);

namespace App\Queries\Findings;

use App\Adapters\PlacesByPart;
use App\Models\StandingCount;
use App\Models\Tally;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Ruling\GroupPlaces;

/** Counts what a filter means, stretch by stretch of its list, where that can be told without looking at a finding. */
final readonly class GroupCounts
{
    public function __construct(private MeantFindings $findings, private PlacesByPart $places) {}

    /**
     * Null where the findings have to be looked at.
     *
     * @param  int  $all  of lists that are no longer, every place is wanted
     */
    public function of(Tally $tally, Filter $filter, int $all): ?CountedFilter
    {
        $meant = $this->findings->of($tally, $filter);
        if ($meant === null) {
            return null;
        }
        $own = $filter->isOfCells ? $filter->number('pattern') : $filter->text('class');
        if ($own !== null && $own !== RowClass::Changed->value) {
            return $this->inOrderOfGroup(implode('', $this->findings->flags($tally, $meant)), $all);
        }
        $counted = $filter->isOfCells ? $this->cells($tally, $meant) : $this->rows($tally, $meant, $own === RowClass::Changed->value);

        return $counted->findings <= $all ? null : $counted;
    }

    /** Of one group, whose findings are listed by their number in it. */
    private function inOrderOfGroup(string $meant, int $all): CountedFilter
    {
        if (substr_count($meant, "\1") <= $all) {
            return CountedFilter::ofAll(array_map(static fn(int $place): int => $place + 1, array_keys(str_split($meant), "\1", true)));
        }
        $counts = array_map(static fn(string $stretch): int => substr_count($stretch, "\1"), $meant === '' ? [] : str_split($meant, GroupPlaces::ROWS));

        return $this->counted($counts, array_map(static fn(int $stretch): int => $stretch * GroupPlaces::ROWS + 1, array_keys($counts)));
    }

    private function cells(Tally $tally, Meant $meant): CountedFilter
    {
        $counts = $firsts = [];
        $first = 1;
        foreach ($this->places->read($tally->id, $this->groups($tally, 'pattern:'), withRows: $meant->rows !== null) as $number => $places) {
            $all = $some = [array_fill(0, GroupPlaces::STRETCHES, 0)];
            foreach ($places as $group => [$part, $passed]) {
                $all[] = $part->counts();
                if ($meant->rows === null && isset($meant->groups[$group])) {
                    $some[] = $part->countsOf(substr($meant->groups[$group], $passed, $part->total()));
                }
            }
            if ($meant->rows !== null) {
                $some[] = array_map(array_sum(...), $this->findingsByRow($meant, $number, $places));
            }
            $counts = [...$counts, ...$this->sums($some)];
            foreach ($this->sums($all) as $cells) {
                $firsts[] = $first;
                $first += $cells;
            }
        }

        return $this->counted($counts, $firsts);
    }

    /**
     * A changed row is meant if one of its cells is.
     *
     * @param  bool  $areChanged  whether only changed rows are listed, by their number among them
     */
    private function rows(Tally $tally, Meant $meant, bool $areChanged): CountedFilter
    {
        $counts = $firsts = [];
        $first = 1;
        foreach ($this->places->read($tally->id, ['class:changed', ...$this->groups($tally, '')], withRows: true) as $number => $places) {
            $changed = isset($places['class:changed']) ? $places['class:changed'][0]->counts() : array_fill(0, GroupPlaces::STRETCHES, 0);
            foreach ($this->findingsByRow($meant, $number, $places) as $stretch => $rows) {
                $counts[] = count($rows);
                $firsts[] = $areChanged ? $first : ($number * GroupPlaces::STRETCHES + $stretch) * GroupPlaces::ROWS;
                $first += $changed[$stretch];
            }
        }

        return $this->counted($counts, $firsts);
    }

    /**
     * @param  array<string, array{GroupPlaces, int}>  $places  of all groups in the part
     * @return list<array<int, int>> by stretch of the part: row => how many of its findings are meant, if any
     */
    private function findingsByRow(Meant $meant, int $number, array $places): array
    {
        $met = array_fill(0, GroupPlaces::STRETCHES, '');
        foreach (array_intersect_key($places, $meant->groups) as $group => [$part, $passed]) {
            foreach ($part->rowsOf(substr($meant->groups[$group], $passed, $part->total())) as $stretch => $rows) {
                $met[$stretch] .= $rows;
            }
        }
        $byRow = [];
        foreach ($meant->rowsOfPart($number) as $stretch => $asked) {
            $findings = GroupPlaces::findingsByRow($met[$stretch]);
            $byRow[] = $meant->rows === null ? $findings : array_intersect_key($findings, array_flip(array_keys(str_split($asked), "\1", true)));
        }

        return $byRow;
    }

    /** @return list<string> */
    private function groups(Tally $tally, string $kind): array
    {
        return array_values(array_filter($tally->standingCounts()->get()->map(static fn(StandingCount $count): string => $count->group)->all(), static fn(string $group): bool => str_starts_with($group, $kind)));
    }

    /**
     * @param  non-empty-list<list<int>>  $counts  each by stretch of a part
     * @return list<int>
     */
    private function sums(array $counts): array
    {
        return array_map(static fn(int ...$ofStretch): int => array_sum($ofStretch), ...$counts);
    }

    /**
     * @param  list<int>  $counts  findings that are meant, by stretch of the list
     * @param  list<int>  $firsts  the place at which each begins
     */
    private function counted(array $counts, array $firsts): CountedFilter
    {
        $landmarks = [];
        $before = 0;
        foreach ($counts as $stretch => $findings) {
            if ($findings > 0) {
                $landmarks[] = [$firsts[$stretch], $before];
                $before += $findings;
            }
        }

        return CountedFilter::ofMany($before, $landmarks);
    }
}
