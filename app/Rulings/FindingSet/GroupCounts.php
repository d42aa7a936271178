<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Models\StandingCount;
use App\Models\Tally;
use App\Rulings\FindingGroup;
use App\Rulings\GroupKind;
use App\Rulings\Storage\GroupPostingReader;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Ruling\GroupPostingBlock;

/** Counts what a filter means, stretch by stretch of its list, where that can be told without looking at a finding. */
final readonly class GroupCounts
{
    public function __construct(private FilterBitmaps $findings, private GroupPostingReader $places) {}

    /**
     * Null where the findings have to be looked at.
     *
     * @param  int  $all  of lists that are no longer, every place is wanted
     */
    public function of(Tally $tally, Filter $filter, int $all): ?FilterCount
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
    private function inOrderOfGroup(string $meant, int $all): FilterCount
    {
        if (substr_count($meant, "\1") <= $all) {
            return FilterCount::ofAll(array_map(static fn(int $place): int => $place + 1, array_keys(str_split($meant), "\1", true)));
        }
        $counts = array_map(
            static fn(string $stretch): int => substr_count($stretch, "\1"),
            $meant === '' ? [] : str_split($meant, GroupPostingBlock::ROWS),
        );

        return $this->counted(
            $counts,
            array_map(static fn(int $stretch): int => $stretch * GroupPostingBlock::ROWS + 1, array_keys($counts)),
        );
    }

    private function cells(Tally $tally, FilterBitmap $meant): FilterCount
    {
        $counts = $firsts = [];
        $first = 1;
        foreach (
            $this->places->read($tally->id, $this->groups($tally, GroupKind::Pattern), withRows: $meant->rows !== null)
            as $number => $places
        ) {
            $all = $some = [array_fill(0, GroupPostingBlock::STRETCHES, 0)];
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
    private function rows(Tally $tally, FilterBitmap $meant, bool $areChanged): FilterCount
    {
        $counts = $firsts = [];
        $first = 1;
        $ofChanged = FindingGroup::ofClass(RowClass::Changed)->name();
        foreach ($this->places->read($tally->id, [$ofChanged, ...$this->groups($tally, null)], withRows: true) as $number => $places) {
            $changed = isset($places[$ofChanged]) ? $places[$ofChanged][0]->counts() : array_fill(0, GroupPostingBlock::STRETCHES, 0);
            foreach ($this->findingsByRow($meant, $number, $places) as $stretch => $rows) {
                $counts[] = count($rows);
                $firsts[] = $areChanged ? $first : ($number * GroupPostingBlock::STRETCHES + $stretch) * GroupPostingBlock::ROWS;
                $first += $changed[$stretch];
            }
        }

        return $this->counted($counts, $firsts);
    }

    /**
     * @param  array<string, array{GroupPostingBlock, int}>  $places  of all groups in the part
     * @return list<array<int, int>> by stretch of the part: row => how many of its findings are meant, if any
     */
    private function findingsByRow(FilterBitmap $meant, int $number, array $places): array
    {
        $met = array_fill(0, GroupPostingBlock::STRETCHES, '');
        foreach (array_intersect_key($places, $meant->groups) as $group => [$part, $passed]) {
            foreach ($part->rowsOf(substr($meant->groups[$group], $passed, $part->total())) as $stretch => $rows) {
                $met[$stretch] .= $rows;
            }
        }
        $byRow = [];
        foreach ($meant->rowsOfPart($number) as $stretch => $asked) {
            $findings = GroupPostingBlock::findingsByRow($met[$stretch]);
            $byRow[] =
                $meant->rows === null ? $findings : array_intersect_key($findings, array_flip(array_keys(str_split($asked), "\1", true)));
        }

        return $byRow;
    }

    /** @return list<string> */
    private function groups(Tally $tally, ?GroupKind $kind): array
    {
        return array_values(
            $tally
                ->standingCounts()
                ->get()
                ->filter(static fn(StandingCount $count): bool => $kind === null || $count->group()->kind === $kind)
                ->map(static fn(StandingCount $count): string => $count->group)
                ->all(),
        );
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
    private function counted(array $counts, array $firsts): FilterCount
    {
        $checkpoints = [];
        $before = 0;
        foreach ($counts as $stretch => $findings) {
            if ($findings > 0) {
                $checkpoints[] = [$firsts[$stretch], $before];
                $before += $findings;
            }
        }

        return FilterCount::ofMany($before, $checkpoints);
    }
}
