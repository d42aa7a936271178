<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Adapters\FreshRows;
use App\Models\Decision;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Queries\Review\GroupsOfAct;
use Illuminate\Database\Connection;

/**
 * The standing of each finding: the newest act of its tally that covers it and has not been undone, else the ruling that was taken over
 * from the tally before.
 *
 * A projection of the acts. follow() brings it up to date after one act; rebuild() makes it again from all of them.
 */
final readonly class Standings
{
    public function __construct(private Connection $database, private GroupsOfAct $groups) {}

    public function follow(Ruling $act): void
    {
        $covered = $act->scope === RulingScope::Undo ? Ruling::query()->findOrFail($act->undoes_id) : $act;
        $groups = $this->groups->of($covered);
        $follow = function () use ($act, $covered, $groups): void {
            if ($act->scope === RulingScope::Undo) {
                array_walk($groups, fn(string $group) => $this->project($act->tally_id, $group, $covered));
            } else {
                $this->stand($act, $groups[0]);
            }
        };
        $covered->sequence === null ? FreshRows::among($this->database, $follow) : $follow();
        foreach ($groups as $group) {
            $this->count($act->tally_id, $group);
        }
    }

    /** The act is the newest: it stands for all that it covers, whatever stood before. */
    private function stand(Ruling $act, string $group): void
    {
        [$covered, $bindings] = $act->scope->hasMembers()
            ? ['SELECT "group", unnest(sequences) AS sequence FROM ruling_members WHERE ruling_id = :members', ['members' => $act->id]]
            : $this->coveredBy($act->tally_id, $group, $act);
        // To look for what is there already row by row takes three times as long as to clear the way first.
        $this->database->delete("DELETE FROM standings s USING ({$covered}) f WHERE s.tally_id = :tally AND s.\"group\" = f.\"group\" AND s.sequence = f.sequence", [...$bindings, 'tally' => $act->tally_id]);
        $this->database->statement(<<<SQL
            INSERT INTO standings (tally_id, "group", sequence, ruling_id, decision)
            SELECT :tally::bigint, "group", sequence, :act::bigint, :decision FROM ({$covered}) f ORDER BY "group", sequence
            SQL, [...$bindings, 'tally' => $act->tally_id, 'act' => $act->id, 'decision' => $act->decision->value ?? throw new \LogicException('Only an undo decides nothing.')]);
    }

    public function rebuild(Tally $tally): void
    {
        FreshRows::among($this->database, function () use ($tally): void {
            foreach ($tally->standingCounts()->get() as $count) {
                $this->project($tally->id, $count->group, null);
                $this->count($tally->id, $count->group);
            }
        });
    }

    /** @param Ruling|null $act the findings of the group that it covers; null for all */
    private function project(int $tallyId, string $group, ?Ruling $act): void
    {
        [$covered, $bound] = $this->coveredBy($tallyId, $group, $act);
        [$kind, $value] = explode(':', $group, 2);
        $bindings = [...$bound, 'tally' => $tallyId];
        $scope = $kind === 'pattern' ? 'cell' : 'row';
        $this->database->delete(<<<SQL
            DELETE FROM standings f WHERE f.tally_id = :tally AND f."group" = :group AND f.sequence IN (SELECT sequence FROM ({$covered}) c)
            SQL, $bindings);
        $this->database->statement(<<<SQL
            WITH acts AS (
                SELECT id, scope, sequence, decision, pattern_number, row_class FROM rulings a
                WHERE tally_id = :tally AND scope <> 'undo' AND NOT EXISTS (SELECT 1 FROM rulings u WHERE u.undoes_id = a.id)
            ), whole AS (
                SELECT id, decision FROM acts WHERE scope = '{$kind}' AND coalesce(pattern_number::text, row_class) = :value ORDER BY id DESC LIMIT 1
            ), single AS (
                SELECT DISTINCT ON (sequence) sequence, id, decision FROM (
                    SELECT sequence, id, decision FROM acts WHERE scope = '{$scope}'
                    UNION ALL
                    SELECT unnest(m.sequences), a.id, a.decision FROM acts a JOIN ruling_members m ON m.ruling_id = a.id AND m."group" = :group
                ) either ORDER BY sequence, id DESC
            )
            INSERT INTO standings (tally_id, "group", sequence, ruling_id, decision)
            SELECT :tally::bigint, f."group", f.sequence,
                CASE WHEN s.id > coalesce(w.id, 0) THEN s.id ELSE coalesce(w.id, c.ruling_id) END,
                CASE WHEN s.id > coalesce(w.id, 0) THEN s.decision ELSE coalesce(w.decision, c.decision) END
            FROM ({$covered}) f
            LEFT JOIN single s ON s.sequence = f.sequence
            LEFT JOIN whole w ON true
            LEFT JOIN carried_rulings c ON c.tally_id = :tally AND c."group" = f."group" AND c.sequence = f.sequence AND NOT c.is_changed
            WHERE coalesce(s.id, w.id, c.ruling_id) IS NOT NULL
            SQL, [...$bindings, 'value' => $value]);
    }

    /**
     * @param  Ruling|null  $act  what of the group it covers; null for all
     * @return array{string, array<string, int|string>} a query on "group" and sequence, and what it is bound to
     */
    private function coveredBy(int $tallyId, string $group, ?Ruling $act): array
    {
        [$kind, $value] = explode(':', $group, 2);

        return match (true) {
            $act?->sequence !== null => ['SELECT :group::text AS "group", :sequence::bigint AS sequence', ['group' => $group, 'sequence' => $act->sequence]],
            $act?->scope->hasMembers() === true => ['SELECT "group", unnest(sequences) AS sequence FROM ruling_members WHERE ruling_id = :members AND "group" = :group', ['group' => $group, 'members' => $act->id]],
            $kind === 'pattern' => ['SELECT :group::text AS "group", sequence FROM cell_findings WHERE tally_id = :within AND pattern_number = :pattern', ['group' => $group, 'within' => $tallyId, 'pattern' => (int) $value]],
            default => ['SELECT :group::text AS "group", sequence FROM row_findings WHERE tally_id = :within AND class = :class', ['group' => $group, 'within' => $tallyId, 'class' => $value]],
        };
    }

    private function count(int $tallyId, string $group): void
    {
        $counts = $this->database->table('standings')->where('tally_id', $tallyId)->where('group', $group)
            ->groupBy('decision')->selectRaw('decision, count(*) AS findings')->pluck('findings', 'decision');
        $this->database->table('standing_counts')->where('tally_id', $tallyId)->where('group', $group)->update([
            'expected' => $counts[Decision::Expected->value] ?? 0,
            'defect' => $counts[Decision::Defect->value] ?? 0,
            'ask' => $counts[Decision::Ask->value] ?? 0,
        ]);
    }
}
