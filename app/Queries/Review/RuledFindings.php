<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Ruling;
use App\Models\StandingCount;
use App\Models\Tally;
use Illuminate\Database\Query\Builder;

/**
 * Narrows findings to those that are decided so, or by one act. How many of each group (a pattern, or a class of rows) are decided how is
 * known, so that most groups are meant wholly or not at all. Who wants all of them, or few, looks them up from what stands; who wants a
 * stretch of a long list asks of each as it comes.
 */
final readonly class RuledFindings
{
    /** @param int $few so many findings are found faster from what stands for them than by looking at all */
    public function __construct(private GroupsOfAct $groups, private int $few = 50_000) {}

    public function cells(Builder $query, string $table, Tally $tally, Filter $filter, bool $asTheyCome = false): void
    {
        $this->narrow($query, $table, 'pattern', $tally, $filter, $asTheyCome);
    }

    /** A changed row is ruled on by its cells: it is meant if one of them is. */
    public function rows(Builder $query, Tally $tally, Filter $filter, bool $asTheyCome = false): void
    {
        $rows = fn(Builder $of, string $table): Builder => tap($of->where("{$table}.class", '!=', 'changed'), fn(Builder $narrowed) => $this->narrow($narrowed, $table, 'class', $tally, $filter, $asTheyCome));
        $cells = fn(Builder $of): Builder => tap($of->from('cell_findings AS rc')->where('rc.tally_id', $tally->id), fn(Builder $narrowed) => $this->narrow($narrowed, 'rc', 'pattern', $tally, $filter, $asTheyCome));
        if (! $asTheyCome || $this->areFew($tally, $filter)) {
            $query->whereIn('f.sequence', static fn(Builder $few) => $rows($few->from('row_findings AS rr')->where('rr.tally_id', $tally->id), 'rr')->select('rr.sequence')
                ->unionAll($cells($few->newQuery())->select('rc.row_sequence')));

            return;
        }
        $query->where(fn(Builder $either) => $either->where(static fn(Builder $row) => $rows($row, 'f'))
            ->orWhere(fn(Builder $changed) => $changed->where('f.class', 'changed')->whereExists(fn(Builder $cell) => $this->asked($cells($cell)->selectRaw('1')->whereColumn('rc.row_sequence', 'f.sequence'), $asTheyCome))));
    }

    private function narrow(Builder $query, string $table, string $kind, Tally $tally, Filter $filter, bool $asTheyCome): void
    {
        $ruling = $filter->text('ruling');
        if ($ruling !== null) {
            $this->byDecision($query, $table, $kind, $tally, $ruling === 'reopened' ? 'open' : $ruling, $asTheyCome);
        }
        if ($ruling === 'reopened') {
            $query->whereExists(fn(Builder $inner) => $this->onFinding($inner->from('carried_rulings AS rs'), $table, $kind)->where('rs.is_changed', true));
        }
        if ($filter->number('act') !== null) {
            $this->byAct($query, $table, $kind, $tally, $filter->number('act'), $asTheyCome);
        }
    }

    private function byDecision(Builder $query, string $table, string $kind, Tally $tally, string $decision, bool $asTheyCome): void
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
        if ($decision !== 'open' && (! $asTheyCome || $findings <= $this->few)) {
            $query->whereIn("{$table}.sequence", fn(Builder $few) => $this->standing($few, $tally, [...$whole, ...$partly])->where('rs.decision', $decision)->select('rs.sequence'));

            return;
        }
        $oneByOne = function (Builder $some) use ($table, $kind, $partly, $decision, $asTheyCome): void {
            $this->inGroups($some, $table, $kind, $partly);
            $standing = fn(Builder $inner): Builder => $this->asked($this->onFinding($inner->from('standings AS rs'), $table, $kind), $asTheyCome);
            $decision === 'open'
                ? $some->whereNotExists(static fn(Builder $inner) => $standing($inner)->where('rs.decision', '!=', 'open'))
                : $some->whereExists(static fn(Builder $inner) => $standing($inner)->where('rs.decision', $decision));
        };
        match (true) {
            $partly === [] => $this->inGroups($query, $table, $kind, $whole),
            $whole === [] => $oneByOne($query),
            default => $query->where(fn(Builder $either) => $either->where(fn(Builder $all) => $this->inGroups($all, $table, $kind, $whole))->orWhere($oneByOne)),
        };
    }

    private function byAct(Builder $query, string $table, string $kind, Tally $tally, int $id, bool $asTheyCome): void
    {
        $act = Ruling::query()->find($id);
        // An act on an earlier tally stands where it was carried over to, which may be in any group.
        $groups = match ($act?->tally_id) {
            null => [],
            $tally->id => array_values(array_filter($this->groups->of($act), static fn(string $group): bool => str_starts_with($group, "{$kind}:"))),
            default => array_map(static fn(StandingCount $count): string => $count->group, $this->counts($tally, $kind)),
        };
        if ($act === null || $groups === []) {
            $query->whereRaw('false');
        } elseif (! $asTheyCome || $act->findings <= $this->few) {
            $query->whereIn("{$table}.sequence", fn(Builder $few) => $this->standing($few, $tally, $groups)->where('rs.ruling_id', $id)->select('rs.sequence'));
        } else {
            $this->inGroups($query, $table, $kind, $groups);
            $query->whereExists(fn(Builder $inner) => $this->asked($this->onFinding($inner->from('standings AS rs'), $table, $kind), $asTheyCome)->where('rs.ruling_id', $id));
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

        return $ruling !== null && ! in_array($ruling, ['open', 'reopened'], true)
            && array_sum(array_map(fn(StandingCount $count): int => $this->decided($count, $ruling), [...$this->counts($tally, 'class'), ...$this->counts($tally, 'pattern')])) <= $this->few;
    }

    /** @return list<StandingCount> */
    private function counts(Tally $tally, string $kind): array
    {
        // As they are now: who rules holds the lock, and must not see what was before.
        return array_values(StandingCount::query()->where('tally_id', $tally->id)->whereRaw('starts_with("group", ?)', ["{$kind}:"])->orderBy('group')->get()->all());
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

    /** @param list<string> $groups */
    private function standing(Builder $query, Tally $tally, array $groups): Builder
    {
        return $query->from('standings AS rs')->where('rs.tally_id', $tally->id)->whereIn('rs.group', $groups);
    }

    private function onFinding(Builder $query, string $table, string $kind): Builder
    {
        $group = $kind === 'pattern' ? "'pattern:' || {$table}.pattern_number" : "'class:' || {$table}.class";

        return $query->selectRaw('1')->whereColumn('rs.tally_id', "{$table}.tally_id")->whereColumn('rs.sequence', "{$table}.sequence")->whereRaw("rs.\"group\" = {$group}");
    }

    /** Of each finding as it comes: the database would answer for all of them at once, unless told not to. */
    private function asked(Builder $query, bool $asTheyCome): Builder
    {
        return $asTheyCome ? $query->offset(0) : $query;
    }

    /** @param list<string> $groups */
    private function inGroups(Builder $query, string $table, string $kind, array $groups): void
    {
        $values = array_map(static fn(string $group): string => explode(':', $group, 2)[1], $groups);
        $kind === 'pattern' ? $query->whereIntegerInRaw("{$table}.pattern_number", $values) : $query->whereIn("{$table}.class", $values);
    }
}
