<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Adapters\StandingBlocks;
use App\Models\StandingCount;
use App\Models\Tally;
use Illuminate\Database\Connection;
use NineTally\Core\Ruling\GroupPlaces;
use NineTally\Core\Ruling\StandingBlock;

/**
 * What a filter means that asks for patterns, classes and rulings alone: told from what stands and from the places of each group, which
 * are kept, without looking at a finding.
 */
final readonly class GroupCounts
{
    public function __construct(private Connection $database, private FilteredFindings $findings, private StandingBlocks $standings) {}

    /** Null where each finding has to be asked. */
    public function of(Tally $tally, Filter $filter): ?CountedFilter
    {
        if (! $filter->isOfGroupsAndRulings()) {
            return null;
        }
        $groups = $this->meant($tally, $filter);
        $own = $filter->isOfCells ? $filter->number('pattern') : $filter->text('class');
        if ($own !== null && $own !== 'changed') {
            return $this->inOrderOfGroup($groups === [] ? '' : array_values($groups)[0]);
        }

        return $filter->isOfCells ? $this->cells($tally, $groups) : $this->rows($tally, $groups, $own === 'changed');
    }

    /**
     * The findings of the groups that the filter names.
     *
     * @return array<string, string> group => for each of its findings a byte, 1 where it is meant, else 0
     */
    private function meant(Tally $tally, Filter $filter): array
    {
        $patterns = $filter->isOfCells ? $this->findings->patterns($tally, $filter) : null;
        $class = $filter->text('class');
        $meant = [];
        foreach ($tally->standingCounts()->orderBy('group')->get() as $count) {
            [$kind, $value] = explode(':', $count->group, 2);
            $isNamed = $kind === 'pattern'
                ? ($filter->isOfCells ? $patterns === null || in_array((int) $value, $patterns, true) : $class === null || $class === 'changed')
                : ! $filter->isOfCells && ($class === null || $class === $value);
            if ($isNamed) {
                $meant[$count->group] = $this->inGroup($tally, $filter, $count);
            }
        }

        return $meant;
    }

    private function inGroup(Tally $tally, Filter $filter, StandingCount $count): string
    {
        [$ruling, $act] = [$filter->text('ruling'), $filter->number('act')];
        $isNoneMeant = $act === null && ($ruling === null || $ruling === 'open');
        $none = str_repeat($isNoneMeant ? "\1" : "\0", StandingBlock::FINDINGS);
        $blocks = array_fill(0, intdiv($count->findings, StandingBlock::FINDINGS) + 1, $none);
        if ($filter->followsRulings()) {
            foreach ($this->standings->read($tally->id, $count->group, null) as $number => $block) {
                $blocks[$number] = $block->meant(static fn(int $by, string $decision): bool => ($ruling === null || $ruling === $decision) && ($act === null || $act === $by), $isNoneMeant);
            }
        }

        return substr(implode('', $blocks), 0, $count->findings);
    }

    /** Of one group, whose findings are listed by their number in it. */
    private function inOrderOfGroup(string $meant): CountedFilter
    {
        $counts = array_map(static fn(string $stretch): int => substr_count($stretch, "\1"), $meant === '' ? [] : str_split($meant, GroupPlaces::ROWS));

        return $this->counted($counts, array_map(static fn(int $stretch): int => $stretch * GroupPlaces::ROWS + 1, array_keys($counts)));
    }

    /** @param array<string, string> $groups */
    private function cells(Tally $tally, array $groups): CountedFilter
    {
        $counts = $firsts = [];
        $first = 1;
        foreach ($this->parts($tally, 'pattern:', withRows: false) as $places) {
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
        foreach ($this->parts($tally, '', withRows: true) as $number => $places) {
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

    /**
     * The places of the groups, a part at a time.
     *
     * @return \Generator<int, array<string, array{GroupPlaces, int}>> group => its places in the part, and how many of its findings stand in parts before
     */
    private function parts(Tally $tally, string $kind, bool $withRows): \Generator
    {
        $passed = $part = [];
        $number = 0;
        foreach ($this->database->table('group_places')->where('tally_id', $tally->id)->whereRaw('starts_with("group", ?)', [$kind])->orderBy('part')->selectRaw("part, \"group\", encode(findings, 'hex') AS findings, ".($withRows ? "encode(rows, 'hex')" : "''").' AS rows')->cursor() as $fields) {
            $row = DatabaseRow::of($fields);
            if ($row->int('part') !== $number && $part !== []) {
                yield $number => $part;
                $part = [];
            }
            $number = $row->int('part');
            $places = new GroupPlaces($number, $row->bytes('findings'), $row->bytes('rows'));
            $part[$row->text('group')] = [$places, $passed[$row->text('group')] ?? 0];
            $passed[$row->text('group')] = ($passed[$row->text('group')] ?? 0) + $places->total();
        }
        if ($part !== []) {
            yield $number => $part;
        }
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
