<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Adapters\Database\DatabaseRow;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Rulings\GroupKind;
use App\Rulings\Storage\EffectiveRulingBlocks;
use App\Rulings\Storage\GroupPostingReader;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Ruling\EffectiveRulingBlock;
use NineTally\Core\Ruling\GroupPostingBlock;

/**
 * Which findings a filter means, group by group, without looking at a finding: told from what stands, from the rows that have a part of the
 * key, and from where the findings of each group are known to be. A changed row is meant by its cells.
 */
final readonly class FilterBitmaps
{
    /** @param int $few rows with a part of the key: the findings of no more are found faster by looking at them */
    public function __construct(
        private FilteredFindings $findings,
        private EffectiveRulingBlocks $standings,
        private GroupPostingReader $places,
        private int $few = 20_000,
    ) {}

    /** Null where the findings have to be looked at. */
    public function of(Tally $tally, Filter $filter): ?FilterBitmap
    {
        if (! $filter->isOfGroupsRulingsAndKeys()) {
            return null;
        }
        $groups = array_filter($this->byRulings($tally, $filter), static fn(string $flags): bool => str_contains($flags, "\1"));
        if ($groups === []) {
            return new FilterBitmap([], null);
        }
        $ofKey = $filter->rowsOfKey();
        $rows = $ofKey === null ? null : $this->rows($tally, $ofKey);
        if ($rows !== null && array_sum(array_map(static fn(string $stretch): int => substr_count($stretch, "\1"), $rows)) <= $this->few) {
            return null;
        }

        return new FilterBitmap($groups, $rows);
    }

    /** @return array<string, string> group => for each of its findings a byte, 1 where it is meant, else 0 */
    public function flags(Tally $tally, FilterBitmap $meant): array
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
            $group = $count->group();
            $isNamed =
                $group->kind === GroupKind::Pattern
                    ? ($filter->isOfCells
                        ? $patterns === null || in_array((int) $group->value, $patterns, true)
                        : $class === null || $class === RowClass::Changed->value)
                    : ! $filter->isOfCells && ($class === null || $class === $group->value);
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
        $none = str_repeat($isNoneMeant ? "\1" : "\0", EffectiveRulingBlock::FINDINGS);
        $blocks = array_fill(0, intdiv($count->findings, EffectiveRulingBlock::FINDINGS) + 1, $none);
        if ($filter->followsRulings()) {
            foreach ($this->standings->read($tally->id, $count->group, null) as $number => $block) {
                $blocks[$number] = $block->meant(
                    static fn(int $by, string $decision): bool => ($ruling === null || $ruling === $decision) &&
                        ($act === null || $act === $by),
                    $isNoneMeant,
                );
            }
        }

        return substr(implode('', $blocks), 0, $count->findings);
    }

    /** @return array<int, string> stretch => for each of its rows a byte, 1 where the row is meant; stretches without any are left out */
    private function rows(Tally $tally, Filter $filter): array
    {
        $rows = [];
        foreach (
            $this->findings
                ->query($tally, $filter)
                ->selectRaw("f.sequence / ? AS stretch, string_agg((f.sequence % ?)::text, ',') AS rows", [
                    GroupPostingBlock::ROWS,
                    GroupPostingBlock::ROWS,
                ])
                ->groupByRaw('1')
                ->cursor()
            as $fields
        ) {
            $row = DatabaseRow::of($fields);
            $flags = str_repeat("\0", GroupPostingBlock::ROWS);
            foreach (explode(',', $row->text('rows')) as $place) {
                $flags[(int) $place] = "\1";
            }
            $rows[$row->int('stretch')] = $flags;
        }

        return $rows;
    }
}
