<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Actions\Review\Standings;
use App\Models\CarryOver;
use App\Models\Tally;
use Illuminate\Database\Connection;

/**
 * Takes over what was ruled on the tally before: a finding is known again by its identity, and its ruling stands where both values (of a
 * row: its cells) are the same; else the finding is open again, and says that it has changed since. Where the key of the plan is another
 * one, findings are known by the delivered records instead.
 */
final readonly class CarryRulingsOver
{
    /** By kind of finding: its table, the column of its group, and what must be the same for a ruling to stand. */
    private const KINDS = [
        'pattern' => ['cell_findings', 'pattern_number', 'n.source_value = p.source_value AND n.target_value = p.target_value'],
        'class' => ['row_findings', 'class', 'n.source_cells::text IS NOT DISTINCT FROM p.source_cells::text AND n.target_cells::text IS NOT DISTINCT FROM p.target_cells::text AND n.refusal IS NOT DISTINCT FROM p.refusal'],
    ];

    public function __construct(private Connection $database, private Standings $standings) {}

    /** In the transaction that enters the tally: who rules on the one before meanwhile, waits. */
    public function __invoke(Tally $tally, ?Tally $before): void
    {
        if ($before === null) {
            return;
        }
        $this->database->select('SELECT pg_advisory_xact_lock(1, ?)', [$before->id % 2_147_483_647]);
        $ruled = (int) $this->database->table('standings')->where('tally_id', $before->id)->where('decision', '!=', 'open')->count();
        if ($ruled === 0) {
            return;
        }
        $hasOtherKey = $tally->planVersion->plan()->keyDefinition() !== $before->planVersion->plan()->keyDefinition();
        foreach (self::KINDS as $kind => [$findings, $group, $isSame]) {
            $this->database->insert($hasOtherKey ? $this->byRecord($kind, $findings, $group) : $this->byIdentity($kind, $findings, $group, $isSame), ['tally' => $tally->id, 'before' => $before->id]);
        }
        $carried = $this->database->table('carried_rulings')->where('tally_id', $tally->id)->selectRaw('count(*) FILTER (WHERE NOT is_changed) AS carried, count(*) FILTER (WHERE is_changed) AS changed')->first();
        CarryOver::query()->create(['tally_id' => $tally->id, 'from_tally_id' => $before->id, 'ruled' => $ruled, 'carried' => $carried->carried ?? 0, 'changed' => $carried->changed ?? 0, 'has_other_key' => $hasOtherKey]);
        $this->standings->rebuild($tally);
    }

    private function byIdentity(string $kind, string $findings, string $group, string $isSame): string
    {
        return <<<SQL
            INSERT INTO carried_rulings (tally_id, "group", sequence, ruling_id, decision, is_changed)
            SELECT n.tally_id, '{$kind}:' || n.{$group}, n.sequence, s.ruling_id, s.decision, NOT ({$isSame})
            FROM standings s
            JOIN {$findings} p ON p.tally_id = s.tally_id AND p.sequence = s.sequence AND s."group" = '{$kind}:' || p.{$group}
            JOIN {$findings} n ON n.tally_id = :tally AND n.identity = p.identity
            WHERE s.tally_id = :before AND s.decision <> 'open'
            SQL;
    }

    /** The records of both sides are the same, byte for byte, and so is the column pair: then so are the values. */
    private function byRecord(string $kind, string $findings, string $group): string
    {
        [$rows, $samePair] = $kind === 'pattern'
            ? ['JOIN row_findings pr ON pr.tally_id = p.tally_id AND pr.sequence = p.row_sequence JOIN row_findings nr ON nr.tally_id = :tally AND nr.source_cells::text IS NOT DISTINCT FROM pr.source_cells::text AND nr.target_cells::text IS NOT DISTINCT FROM pr.target_cells::text', 'n.tally_id = nr.tally_id AND n.row_sequence = nr.sequence AND (SELECT pair_id FROM patterns WHERE tally_id = n.tally_id AND number = n.pattern_number) = (SELECT pair_id FROM patterns WHERE tally_id = p.tally_id AND number = p.pattern_number)']
            : ['', 'n.tally_id = :tally AND n.class = p.class AND n.side IS NOT DISTINCT FROM p.side AND n.source_cells::text IS NOT DISTINCT FROM p.source_cells::text AND n.target_cells::text IS NOT DISTINCT FROM p.target_cells::text AND n.refusal IS NOT DISTINCT FROM p.refusal'];

        return <<<SQL
            INSERT INTO carried_rulings (tally_id, "group", sequence, ruling_id, decision, is_changed)
            SELECT DISTINCT ON (n.sequence) n.tally_id, '{$kind}:' || n.{$group}, n.sequence, s.ruling_id, s.decision, false
            FROM standings s
            JOIN {$findings} p ON p.tally_id = s.tally_id AND p.sequence = s.sequence AND s."group" = '{$kind}:' || p.{$group}
            {$rows}
            JOIN {$findings} n ON {$samePair}
            WHERE s.tally_id = :before AND s.decision <> 'open'
            ORDER BY n.sequence, s.ruling_id DESC
            SQL;
    }
}
