<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\PlacesByPart;
use App\Models\StandingCount;
use App\Models\Tally;
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
        $groups = $this->findings->of($tally, $filter);
        if ($groups === null) {
            return null;
        }
        $own = $filter->isOfCells ? $filter->number('pattern') : $filter->text('class');
        if ($own !== null && $own !== 'changed') {
            return $this->inOrderOfGroup($groups === [] ? '' : array_values($groups)[0], $all);
        }
        $counted = $filter->isOfCells ? $this->cells($tally, $groups) : $this->rows($tally, $groups, $own === 'changed');

        return $counted->findings <= $all ? null : $counted;
    }

    /** Of one group, whose findings are listed by their number in it. */
    private function inOrderOfGroup(string $meant, int $all): CountedFilter
    {
        if (substr_count($meant, "\1") <= $all) {
            $places = [];
            for ($place = strpos($meant, "\1"); $place !== false; $place = strpos($meant, "\1", $place + 1)) {
                $places[] = $place + 1;
            }

            return CountedFilter::ofAll($places);
        }
        $counts = array_map(static fn(string $stretch): int => substr_count($stretch, "\1"), $meant === '' ? [] : str_split($meant, GroupPlaces::ROWS));

        return $this->counted($counts, array_map(static fn(int $stretch): int => $stretch * GroupPlaces::ROWS + 1, array_keys($counts)));
    }

    /** @param array<string, string> $groups */
    private function cells(Tally $tally, array $groups): CountedFilter
    {
        $counts = $firsts = [];
        $first = 1;
        foreach ($this->places->read($tally->id, $this->groups($tally, 'pattern:'), withRows: false) as $places) {
            $all = $some = array_fill(0, GroupPlaces::STRETCHES, 0);
            foreach ($places as $group => [$part, $passed]) {
                $all = $this->sum($all, $part->counts());
                $some = isset($groups[$group]) ? $this->sum($some, $part->countsOf(substr($groups[$group], $passed, $part->total()))) : $some;
            }
            foreach ($some as $stretch => $findings) {
                [$counts[], $firsts[]] = [$findings, $first];
                $first += $all[$stretch];
            }
        }

        return $this->counted($counts, $firsts);
    }

    /**
     * A changed row is meant if one of its cells is.
     *
     * @param  array<string, string>  $groups
     * @param  bool  $areChanged  whether only changed rows are listed, by their number among them
     */
    private function rows(Tally $tally, array $groups, bool $areChanged): CountedFilter
    {
        $counts = $firsts = [];
        $first = 1;
        foreach ($this->places->read($tally->id, ['class:changed', ...$this->groups($tally, '')], withRows: true) as $number => $places) {
            $met = array_fill(0, GroupPlaces::STRETCHES, '');
            foreach (array_intersect_key($places, $groups) as $group => [$part, $passed]) {
                foreach ($part->rowsOf(substr($groups[$group], $passed, $part->total())) as $stretch => $rows) {
                    $met[$stretch] .= $rows;
                }
            }
            $changed = isset($places['class:changed']) ? $places['class:changed'][0]->counts() : array_fill(0, GroupPlaces::STRETCHES, 0);
            foreach ($met as $stretch => $rows) {
                $counts[] = GroupPlaces::differentRows($rows);
                $firsts[] = $areChanged ? $first : ($number * GroupPlaces::STRETCHES + $stretch) * GroupPlaces::ROWS;
                $first += $changed[$stretch];
            }
        }

        return $this->counted($counts, $firsts);
    }

    /** @return list<string> */
    private function groups(Tally $tally, string $kind): array
    {
        return array_values(array_filter($tally->standingCounts()->get()->map(static fn(StandingCount $count): string => $count->group)->all(), static fn(string $group): bool => str_starts_with($group, $kind)));
    }

    /**
     * @param  list<int>  $one
     * @param  list<int>  $other  as many
     * @return list<int>
     */
    private function sum(array $one, array $other): array
    {
        return array_map(static fn(int $number, int $added): int => $number + $added, $one, $other);
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
