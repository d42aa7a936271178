<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

use App\Models\Decision;
use App\Models\Ruling;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Rulings\CoveredFindings;
use App\Rulings\FindingGroup;
use App\Rulings\GroupKind;
use Illuminate\Database\Query\Builder;
use Illuminate\Database\Query\JoinClause;
use NineTally\Core\Comparison\RowClass;

/**
 * Narrows findings to those that are decided so, or by one act. How many of each group (a pattern, or a class of rows) are decided how is
 * known, so that most groups are meant wholly or not at all. Few are looked up from what stands; who wants a stretch of a long list asks of
 * each as it
 * comes.
 */
final readonly class RuledFindings
{
    /** @param int $few so many findings are found faster from what stands for them than by looking at all */
    public function __construct(private CoveredFindings $coverage, private int $few = 20_000) {}

    /** A changed row is ruled on by its cells: it is meant if one of them is. */
    public function rows(Builder $query, Tally $tally, Filter $filter, bool $isStreamed = false): void
    {
        if (! $isStreamed || $this->areFew($tally, $filter)) {
            $query->whereIn(
                'f.sequence',
                fn(Builder $few) => $this->rowsByThemselves($few->from('row_findings AS rr'), 'rr', $tally, $filter)
                    ->select('rr.sequence')
                    ->unionAll($this->cells($few->newQuery(), $tally, $filter)->select('rc.row_sequence')),
            );

            return;
        }
        $query->where(
            fn(Builder $either) => $either
                ->where(fn(Builder $row) => $this->rowsByThemselves($row, 'f', $tally, $filter, $isStreamed))
                ->orWhere(
                    fn(Builder $changed) => $changed
                        ->where('f.class', RowClass::Changed->value)
                        ->whereExists(
                            fn(Builder $cell) => $this->asked(
                                $this->cells($cell, $tally, $filter, $isStreamed)
                                    ->selectRaw('1')
                                    ->whereColumn('rc.row_sequence', 'f.sequence'),
                                $isStreamed,
                            ),
                        ),
                ),
        );
    }

    /** The cells that are meant, as "rc". */
    private function cells(Builder $query, Tally $tally, Filter $filter, bool $isStreamed = false): Builder
    {
        $cells = $query->from('cell_findings AS rc')->where('rc.tally_id', $tally->id);
        $this->narrow($cells, 'rc', GroupKind::Pattern, $tally, $filter, $isStreamed);

        return $cells;
    }

    /** Rows that are ruled on themselves. */
    private function rowsByThemselves(Builder $query, string $table, Tally $tally, Filter $filter, bool $isStreamed = false): Builder
    {
        $rows = $query->where("{$table}.tally_id", $tally->id)->where("{$table}.class", '!=', RowClass::Changed->value);
        $this->narrow($rows, $table, GroupKind::RowClass, $tally, $filter, $isStreamed);

        return $rows;
    }

    public function narrow(Builder $query, string $table, GroupKind $kind, Tally $tally, Filter $filter, bool $isStreamed = false): void
    {
        $ruling = $filter->text('ruling');
        if ($ruling !== null) {
            $this->byDecision($query, $table, $kind, $tally, $ruling === 'reopened' ? 'open' : $ruling, $isStreamed);
        }
        if ($ruling === 'reopened') {
            $query->whereExists(
                static fn(Builder $inner) => $inner
                    ->selectRaw('1')
                    ->from('carried_rulings AS rs')
                    ->whereColumn('rs.tally_id', "{$table}.tally_id")
                    ->whereColumn('rs.sequence', "{$table}.sequence")
                    ->whereRaw("rs.\"group\" = {$kind->groupIn($table)}")
                    ->where('rs.is_changed', true),
            );
        }
        if ($filter->number('act') !== null) {
            $this->byAct($query, $table, $kind, $tally, $filter->number('act'), $isStreamed);
        }
    }

    private function byDecision(Builder $query, string $table, GroupKind $kind, Tally $tally, string $decision, bool $isStreamed): void
    {
        [$whole, $partly] = [[], []];
        $findings = 0;
        foreach ($this->counts($tally, $kind) as $count) {
            $decided = $this->decided($count, $decision);
            $findings += $decided;
            if ($decided > 0) {
                $decided === $count->findings ? $whole[] = $count->group : $partly[] = $count->group;
            }
        }
        if ($decision !== 'open' && $findings <= $this->few) {
            $query->whereIn(
                "{$table}.sequence",
                fn(Builder $few) => $this->standing($few, $kind, $tally, [...$whole, ...$partly], 'decision', $decision),
            );

            return;
        }
        $oneByOne = function (Builder $some) use ($table, $kind, $partly, $decision, $isStreamed): void {
            $this->inGroups($some, $table, $kind, $partly);
            $standing = fn(Builder $inner): Builder => $this->asked($this->onFinding($inner, $table, $kind), $isStreamed);
            $decision === 'open'
                ? $some->whereNotExists(static fn(Builder $inner) => $standing($inner)->whereRaw("{$kind->decision($table, 'rs')} <> 0"))
                : $some->whereExists(
                    static fn(Builder $inner) => $standing($inner)->whereRaw(
                        "{$kind->decision($table, 'rs')} = ".Decision::from($decision)->code(),
                    ),
                );
        };
        match (true) {
            $partly === [] => $this->inGroups($query, $table, $kind, $whole),
            $whole === [] => $oneByOne($query),
            default => $query->where(
                fn(Builder $either) => $either->where(fn(Builder $all) => $this->inGroups($all, $table, $kind, $whole))->orWhere($oneByOne),
            ),
        };
    }

    private function byAct(Builder $query, string $table, GroupKind $kind, Tally $tally, int $id, bool $isStreamed): void
    {
        $act = Ruling::query()->find($id);
        // An act on an earlier tally stands where it was carried over to, which may be in any group.
        $groups = match ($act?->tally_id) {
            null => [],
            $tally->id => array_values(
                array_filter($this->coverage->groups($act), static fn(string $group): bool => FindingGroup::named($group)->kind === $kind),
            ),
            default => array_map(static fn(StandingCount $count): string => $count->group, $this->counts($tally, $kind)),
        };
        if ($act === null || $groups === []) {
            $query->whereRaw('false');
        } elseif ($act->findings <= $this->few) {
            $query->whereIn("{$table}.sequence", fn(Builder $few) => $this->standing($few, $kind, $tally, $groups, 'act', $id));
        } else {
            $this->inGroups($query, $table, $kind, $groups);
            $query->whereExists(
                fn(Builder $inner) => $this->asked($this->onFinding($inner, $table, $kind), $isStreamed)->whereRaw(
                    "{$kind->act($table, 'rs')} = ?",
                    [$id],
                ),
            );
        }
    }

    /** Whether the rows that are meant are few, whatever stands for them: rows of a class, or of cells. */
    private function areFew(Tally $tally, Filter $filter): bool
    {
        $act = $filter->number('act') === null ? null : Ruling::query()->find($filter->number('act'));
        if ($act !== null && $act->findings <= $this->few) {
            return true;
        }
        $ruling = $filter->text('ruling');

        return $ruling !== null &&
            ! in_array($ruling, ['open', 'reopened'], true) &&
            array_sum(
                array_map(fn(StandingCount $count): int => $this->decided($count, $ruling), [
                    ...$this->counts($tally, GroupKind::RowClass),
                    ...$this->counts($tally, GroupKind::Pattern),
                ]),
            ) <= $this->few;
    }

    /** @return list<StandingCount> */
    private function counts(Tally $tally, GroupKind $kind): array
    {
        // As they are now: who rules holds the lock, and must not see what was before.
        return array_values(
            StandingCount::query()
                ->where('tally_id', $tally->id)
                ->whereRaw('starts_with("group", ?)', ["{$kind->value}:"])
                ->orderBy('group')
                ->get()
                ->all(),
        );
    }

    private function decided(StandingCount $count, string $decision): int
    {
        return match ($decision) {
            'expected' => $count->expected,
            'defect' => $count->defect,
            'ask' => $count->ask,
            default => $count->open(),
        };
    }

    /**
     * The sequences of the findings that were decided so, or by one act: only blocks that know of it are taken apart.
     *
     * @param  list<string>  $groups
     */
    private function standing(Builder $query, GroupKind $kind, Tally $tally, array $groups, string $what, string|int $value): void
    {
        [$ofFinding, $ofBlock] = $what === 'act' ? ['ruling_id', 'acts_of_block'] : ['decision', 'decisions_of_block'];
        $query->from('standing_findings AS rs')
            ->join("{$kind->table()} AS rq", static fn(JoinClause $join) => $join->whereRaw($kind->isStanding('rq', 'rs')))
            ->where('rs.tally_id', $tally->id)
            ->whereIn('rs.group', $groups)
            ->whereRaw("? = ANY(rs.{$ofBlock})", [$value])
            ->where("rs.{$ofFinding}", $value)
            ->select('rq.sequence');
    }

    private function onFinding(Builder $query, string $table, GroupKind $kind): Builder
    {
        return $query->selectRaw('1')->from('standings AS rs')->whereRaw($kind->inBlock($table, 'rs'));
    }

    /** Of each finding as it comes: the database would answer for all of them at once, unless told not to. */
    private function asked(Builder $query, bool $isStreamed): Builder
    {
        return $isStreamed ? $query->offset(0) : $query;
    }

    /** @param list<string> $groups */
    private function inGroups(Builder $query, string $table, GroupKind $kind, array $groups): void
    {
        $values = array_map(static fn(string $group): string => FindingGroup::named($group)->value, $groups);
        $kind === GroupKind::Pattern
            ? $query->whereIntegerInRaw("{$table}.pattern_number", $values)
            : $query->whereIn("{$table}.class", $values);
    }
}
