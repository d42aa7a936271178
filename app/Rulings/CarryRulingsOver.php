<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\ManyRows;
use App\Models\CarryOver;
use App\Models\Tally;
use Illuminate\Database\Connection;

/**
 * Takes over what was ruled on the tally before: a finding is known again by its identity, and its ruling stands where both values (of a
 * row: its cells) are the same; else the finding is open again, and says that it has changed since. Where the key of the plan is another
 * one, findings are known by the delivered records instead. An act on a pattern that was meant for tallies to come covers what they find of
 * the pattern, as far as it was meant to.
 */
final readonly class CarryRulingsOver
{
    /** By kind of group: what must be the same in both tallies for a ruling on a finding to stand. */
    private const SAME = [
        'pattern' => 'n.source_value = p.source_value AND n.target_value = p.target_value',
        'class' =>
            'n.source_cells::text IS NOT DISTINCT FROM p.source_cells::text AND n.target_cells::text IS NOT DISTINCT '.
                'FROM p.target_cells::text AND n.refusal IS NOT DISTINCT FROM p.refusal AND n.refused_text IS NOT DISTINCT '.
                'FROM p.refused_text',
    ];

    public function __construct(private Connection $database, private EffectiveRulings $standings) {}

    /** In the transaction that enters the tally: who rules on the one before meanwhile, waits. */
    public function __invoke(Tally $tally, ?Tally $before): void
    {
        if ($before === null) {
            return;
        }
        EffectiveRulings::hold($this->database, $before->id);
        $ruled = (int) $before->standingCounts()->sum($this->database->raw('expected + defect + ask'));
        $holding = $this->holding($tally);
        if ($ruled === 0 && $holding === []) {
            return;
        }
        $hasOtherKey = $tally->planVersion->plan()->keyDefinition() !== $before->planVersion->plan()->keyDefinition();
        // Acts on patterns that hold for tallies to come decide on all of their pattern: what they covered before comes after them.
        $acts = '{'.implode(',', array_map(static fn(DatabaseRow $act): int => $act->int('id'), $holding)).'}';
        $this->carry($tally, $before, $hasOtherKey, 'AND NOT s.ruling_id = ANY(:acts::bigint[])', $acts);
        array_walk($holding, fn(DatabaseRow $act) => $this->hold($tally, $before, $act));
        if ($holding !== []) {
            $this->carry($tally, $before, $hasOtherKey, 'AND s.ruling_id = ANY(:acts::bigint[])', $acts);
        }
        CarryOver::query()->create([
            'tally_id' => $tally->id,
            'from_tally_id' => $before->id,
            'ruled' => $ruled,
            ...$this->figures($tally),
            'has_other_key' => $hasOtherKey,
        ]);
        $this->standings->rebuild($tally);
    }

    /** @return array<string, int> of the findings that were ruled on before, and of those that only a ruling for tallies to come covers */
    private function figures(Tally $tally): array
    {
        $before = "count(DISTINCT (split_part(\"group\", ':', 1), from_sequence)) FILTER (WHERE from_sequence IS NOT NULL AND";
        $counted = $this->database->table('carried_rulings')->where('tally_id', $tally->id)->selectRaw(<<<SQL
            {$before} NOT is_changed) AS carried, {$before} is_changed AND NOT is_beyond) AS changed, {$before} is_beyond) AS beyond,
                count(*) FILTER (WHERE from_sequence IS NULL AND NOT is_changed) AS taken_on
            SQL)->first();
        $row = DatabaseRow::of($counted ?? new \stdClass);

        return [
            'carried' => $row->int('carried'),
            'changed' => $row->int('changed'),
            'beyond' => $row->int('beyond'),
            'taken_on' => $row->int('taken_on'),
        ];
    }

    private function carry(Tally $tally, Tally $before, bool $hasOtherKey, string $which, string $acts): void
    {
        ManyRows::withoutNestedLoops($this->database, function () use ($tally, $before, $hasOtherKey, $which, $acts): void {
            foreach (GroupKind::cases() as $kind) {
                $carried = $hasOtherKey ? $this->byRecord($kind, $which) : $this->byIdentity($kind, $which);
                $this->database->insert("{$carried} ON CONFLICT DO NOTHING", [
                    'tally' => $tally->id,
                    'before' => $before->id,
                    'acts' => $acts,
                ]);
            }
        });
    }

    /**
     * @return list<DatabaseRow> the newest act on each pattern of the tally that came up before, where it was meant for tallies to come too
     */
    private function holding(Tally $tally): array
    {
        return DatabaseRow::all($this->database, <<<'SQL'
            WITH newest AS (
                SELECT DISTINCT ON (p.pair_id, p.class, p.cause, p.facts::text) a.id, a.decision, a.holds_up_to, a.holds_for, p.pair_id,
                    p.class, p.cause, p.facts
                FROM rulings a JOIN patterns p ON p.tally_id = a.tally_id AND p.number = a.pattern_number
                WHERE a.dataset_id = :dataset AND a.scope = 'pattern' AND a.tally_id <> :tally AND NOT EXISTS (SELECT 1 FROM rulings u
                    WHERE u.undoes_id = a.id)
                ORDER BY p.pair_id, p.class, p.cause, p.facts::text, a.id DESC
            )
            SELECT w.id, w.decision, w.holds_for, n.number, (n.cells > coalesce(w.holds_up_to, n.cells))::int AS is_beyond
            FROM newest w JOIN patterns n ON n.pair_id = w.pair_id AND n.class = w.class AND n.cause = w.cause
                AND n.facts::text = w.facts::text
            WHERE n.tally_id = :tally AND (w.holds_up_to IS NOT NULL OR w.holds_for IS NOT NULL)
            ORDER BY n.number
            SQL, ['dataset' => $tally->dataset_id, 'tally' => $tally->id]);
    }

    /** Covers the cells of a pattern by an act that was meant for them; or opens all of them, where they are more than it was meant for. */
    private function hold(Tally $tally, Tally $before, DatabaseRow $act): void
    {
        $pairs = $act->textOrNull('holds_for');
        $isStanding = GroupKind::Pattern->isStanding('p', 's');
        $this->database->insert(
            <<<SQL
            WITH earlier AS (
                SELECT p.identity, p.sequence FROM standing_findings s JOIN cell_findings p ON {$isStanding}
                WHERE s.tally_id = :before AND s.decision <> 'open'
            )
            INSERT INTO carried_rulings (tally_id, "group", sequence, ruling_id, decision, is_changed, is_beyond, from_sequence)
            SELECT f.tally_id, 'pattern:' || f.pattern_number, f.sequence, :act, :decision, :beyond, :beyond, e.sequence
            FROM cell_findings f LEFT JOIN earlier e ON e.identity = f.identity
            WHERE f.tally_id = :tally AND f.pattern_number = :number
              AND (:pairs::jsonb IS NULL OR EXISTS (SELECT 1 FROM jsonb_array_elements(:pairs::jsonb) pair
                  WHERE pair->>'source' = f.source_value AND pair->>'target' = f.target_value))
            ON CONFLICT DO NOTHING
            SQL
            ,
            [
                'act' => $act->int('id'),
                'decision' => $act->text('decision'),
                'beyond' => $act->int('is_beyond') === 1 ? 'true' : 'false',
                'tally' => $tally->id,
                'before' => $before->id,
                'number' => $act->int('number'),
                'pairs' => $pairs,
            ],
        );
    }

    private function byIdentity(GroupKind $kind, string $which): string
    {
        $isSame = self::SAME[$kind->value];

        return <<<SQL
            INSERT INTO carried_rulings (tally_id, "group", sequence, ruling_id, decision, is_changed, from_sequence)
            SELECT n.tally_id, {$kind->groupIn('n')}, n.sequence, s.ruling_id, s.decision, NOT ({$isSame}), p.sequence
            FROM standing_findings s
            JOIN {$kind->table()} p ON {$kind->isStanding('p', 's')}
            JOIN {$kind->table()} n ON n.tally_id = :tally AND n.identity = p.identity
            WHERE s.tally_id = :before AND s.decision <> 'open' {$which}
            SQL;
    }

    /** The records of both sides are the same, byte for byte, and so is the column pair: then so are the values. */
    private function byRecord(GroupKind $kind, string $which): string
    {
        // Compared as texts that are never null, so that the database can look them up by hash: each against each would take hours.
        $same = static fn(string $one, string $other, string ...$columns): string => implode(
            ' AND ',
            array_map(
                static fn(string $column): string => "coalesce({$one}.{$column}::text, '') = coalesce({$other}.{$column}::text, '')",
                $columns,
            ),
        );
        if ($kind === GroupKind::Pattern) {
            $rows = <<<SQL
                JOIN row_findings pr ON pr.tally_id = p.tally_id AND pr.sequence = p.row_sequence
                JOIN row_findings nr ON nr.tally_id = :tally AND {$same('nr', 'pr', 'source_cells', 'target_cells')}
                JOIN patterns pp ON pp.tally_id = p.tally_id AND pp.number = p.pattern_number
                JOIN patterns np ON np.tally_id = :tally AND np.pair_id = pp.pair_id
                SQL;
            $isSame = 'n.tally_id = nr.tally_id AND n.row_sequence = nr.sequence AND n.pattern_number = np.number';
        } else {
            $rows = '';
            $isSame = "n.tally_id = :tally AND n.class = p.class AND {$same(
                'n',
                'p',
                'side',
                'source_cells',
                'target_cells',
                'refused_text',
            )}";
        }

        return <<<SQL
            INSERT INTO carried_rulings (tally_id, "group", sequence, ruling_id, decision, is_changed, from_sequence)
            SELECT DISTINCT ON (n.sequence) n.tally_id, {$kind->groupIn('n')}, n.sequence, s.ruling_id, s.decision, false, p.sequence
            FROM standing_findings s
            JOIN {$kind->table()} p ON {$kind->isStanding('p', 's')}
            {$rows}
            JOIN {$kind->table()} n ON {$isSame}
            WHERE s.tally_id = :before AND s.decision <> 'open' {$which}
            ORDER BY n.sequence, s.ruling_id DESC
            SQL;
    }
}
