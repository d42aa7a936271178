<?php

declare(strict_types=1);

namespace App\Queries\Findings;

use App\Adapters\DatabaseRow;
use App\Adapters\PlacesByPart;
use App\Adapters\StandingBlocks;
use App\Models\StandingCount;
use App\Models\Tally;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Ruling\GroupPlaces;
use NineTally\Core\Ruling\StandingBlock;

/**
 * Which findings a filter means, group by group, without looking at a finding: told from what stands, from the rows that have a part of the
 * key, and from where the findings of each group are known to be. A changed row is meant by its cells.
 */
final readonly class MeantFindings
{
    /** @param int $few rows with a part of the key: the findings of no more are found faster by looking at them */
    public function __construct(private FilteredFindings $findings, private StandingBlocks $standings, private PlacesByPart $places, private int $few = 20_000) {}

    /** Null where the findings have to be looked at. */
    public function of(Tally $tally, Filter $filter): ?Meant
    {
        if (! $filter->isOfGroupsRulingsAndKeys()) {
            return null;
        }
        $groups = array_filter($this->byRulings($tally, $filter), static fn(string $flags): bool => str_contains($flags, "\1"));
        if ($groups === []) {
            return new Meant([], null);
        }
        $ofKey = $filter->rowsOfKey();
        $rows = $ofKey === null ? null : $this->rows($tally, $ofKey);
        if ($rows !== null && array_sum(array_map(static fn(string $stretch): int => substr_count($stretch, "\1"), $rows)) <= $this->few) {
            return null;
        }

        return new Meant($groups, $rows);
    }

    /** @return array<string, string> group => for each of its findings a byte, 1 where it is meant, else 0 */
    public function flags(Tally $tally, Meant $meant): array
    {
        if ($meant->rows === null) {
            return $meant->groups;
        }
        $flags = array_map(static fn(): string => '', $meant->groups);
        foreach ($this->places->read($tally->id, array_keys($flags), withRows: true) as $number => $places) {
            $rows = $meant->rowsOfPart($number);
            foreach ($places as $group => [$part, $passed]) {
                $flags[$group] .= substr($meant->groups[$group], $passed, $part->total()) & $part->inRows($rows);
            }
        }

        return $flags;
    }

    /** @return array<string, string> */
    private function byRulings(Tally $tally, Filter $filter): array
    {
        $patterns = $filter->isOfCells ? $this->findings->patterns($tally, $filter) : null;
        $class = $filter->text('class');
        $meant = [];
        foreach ($tally->standingCounts()->orderBy('group')->get() as $count) {
            [$kind, $value] = explode(':', $count->group, 2);
            $isNamed = $kind === 'pattern'
                ? ($filter->isOfCells ? $patterns === null || in_array((int) $value, $patterns, true) : $class === null || $class === RowClass::Changed->value)
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

    /** @return array<int, string> stretch => for each of its rows a byte, 1 where the row is meant; stretches without any are left out */
    private function rows(Tally $tally, Filter $filter): array
    {
        $rows = [];
        foreach ($this->findings->query($tally, $filter)->selectRaw("f.sequence / ? AS stretch, string_agg((f.sequence % ?)::text, ',') AS rows", [GroupPlaces::ROWS, GroupPlaces::ROWS])->groupByRaw('1')->cursor() as $fields) {
            $row = DatabaseRow::of($fields);
            $flags = str_repeat("\0", GroupPlaces::ROWS);
            foreach (explode(',', $row->text('rows')) as $place) {
                $flags[(int) $place] = "\1";
            }
            $rows[$row->int('stretch')] = $flags;
        }

        return $rows;
    }
}
