<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\CorrectionSet;
use App\Models\Tally;
use Illuminate\Database\Connection;

/**
 * What a later tally says of each correction: done, not done, done otherwise, by the identity of its finding, or of the bridge whose
 * keys it is of; and how many cells differ now in rows that were corrected, and did not before.
 */
final readonly class CorrectionChecks
{
    public const LINES = <<<'SQL'
    SELECT l.number, l.action, l.ruling_id, encode(l.identity, 'hex') AS identity, l.source_key, l.key::text AS key, l."column", l.stands,
        l.must, l.row::text AS row, l.uncertain, CASE
        WHEN :newest::bigint = l.made_on THEN 'waits'
        WHEN NOT :comparable::boolean THEN 'not-to-be-told'
        WHEN l.action = 'set-key' THEN CASE
            WHEN encode(l.identity, 'hex') IN (SELECT jsonb_array_elements_text(:joined::jsonb)) OR r.class = 'missing' THEN 'not-done'
            WHEN r.sequence IS NULL THEN 'done' ELSE 'otherwise' END
        WHEN l.action = 'set' THEN CASE
            WHEN c.identity IS NULL THEN CASE WHEN r.sequence IS NULL THEN 'done' ELSE 'otherwise' END
            WHEN c.target_value = l.stands THEN 'not-done' ELSE 'otherwise' END
        WHEN w.identity IS NOT NULL THEN 'not-done'
        WHEN l.action = 'add' AND d.sequence IS NOT NULL THEN 'otherwise'
        ELSE 'done' END AS state
    FROM (SELECT l.*, s.tally_id AS made_on FROM correction_lines l JOIN correction_sets s ON s.id = l.set_id WHERE l.set_id = :set) l
    LEFT JOIN cell_findings c ON l.action = 'set' AND c.tally_id = :newest AND c.identity = l.identity
    LEFT JOIN row_findings w ON l.action IN ('add', 'take-out') AND w.tally_id = :newest AND w.identity = l.identity
    LEFT JOIN LATERAL (SELECT sequence, class FROM row_findings WHERE tally_id = :newest AND "left"(key, 100) = "left"(l.source_key, 100)
        AND key = l.source_key AND class <> 'changed' LIMIT 1) r ON l.action IN ('set', 'set-key') AND c.identity IS NULL
    LEFT JOIN LATERAL (SELECT sequence FROM row_findings WHERE tally_id = :newest AND "left"(key, 100) = "left"(l.source_key, 100)
        AND key = l.source_key AND class = 'changed' LIMIT 1) d ON l.action = 'add' AND w.identity IS NULL
    SQL;

    public function __construct(private Connection $database) {}

    /** @return array<string, int|null> lines by state, how many are uncertain, and what new the corrected rows have */
    public function sums(CorrectionSet $set, Tally $newest): array
    {
        $states = ['done' => 0, 'notDone' => 0, 'otherwise' => 0, 'waits' => 0, 'notToBeTold' => 0];
        $uncertain = 0;
        $lines = self::LINES;
        $rows = DatabaseRow::all(
            $this->database,
            "SELECT state, count(*) AS lines, count(*) FILTER (WHERE uncertain <> '') AS uncertain FROM ({$lines}) checked GROUP BY 1",
            $this->bindings($set, $newest),
        );
        foreach ($rows as $row) {
            $states[lcfirst(str_replace('-', '', ucwords($row->text('state'), '-')))] = $row->int('lines');
            $uncertain += $row->int('uncertain');
        }

        return [...$states, 'uncertain' => $uncertain, 'broke' => $this->broke($set, $newest)];
    }

    /** @return list<DatabaseRow> */
    public function lines(CorrectionSet $set, Tally $newest, int $after, int $limit): array
    {
        $lines = self::LINES;

        return DatabaseRow::all(
            $this->database,
            "SELECT * FROM ({$lines}) checked WHERE number > :after ORDER BY number LIMIT :limit",
            [...$this->bindings($set, $newest), 'after' => $after, 'limit' => $limit],
        );
    }

    /** @return array<string, int|string> */
    private function bindings(CorrectionSet $set, Tally $newest): array
    {
        return [
            'set' => $set->id,
            'newest' => $newest->id,
            'comparable' => $this->isComparable($set, $newest) ? 'true' : 'false',
            'joined' => json_encode($this->stillJoined($set, $newest), JSON_THROW_ON_ERROR),
        ];
    }

    /** @return list<string> digests of bridges that the newest tally still needs to join their rows; lines of keys alone ask for them */
    private function stillJoined(CorrectionSet $set, Tally $newest): array
    {
        return $set->isOfKeys()
            ? array_map(JoinedBridges::digest(...), array_map(strval(...), array_keys(array_filter(JoinedBridges::of($newest)))))
            : [];
    }

    /** Under another key a finding has another identity. */
    private function isComparable(CorrectionSet $set, Tally $newest): bool
    {
        return $set->tally->plan_version_id === $newest->plan_version_id ||
            $set->tally->planVersion->plan()->keyDefinition() === $newest->planVersion->plan()->keyDefinition();
    }

    /** Cells of corrected rows that differ in the newest tally, and did not in the one that the corrections were made of. */
    private function broke(CorrectionSet $set, Tally $newest): ?int
    {
        if ($set->tally_id === $newest->id || ! $this->isComparable($set, $newest)) {
            return null;
        }
        $row = DatabaseRow::all($this->database, <<<'SQL'
            SELECT count(*) AS cells FROM cell_findings c JOIN row_findings r ON r.tally_id = c.tally_id AND r.sequence = c.row_sequence
            WHERE c.tally_id = :newest AND r.key IN (SELECT source_key FROM correction_lines WHERE set_id = :set)
                AND NOT EXISTS (SELECT 1 FROM cell_findings b WHERE b.tally_id = :made AND b.identity = c.identity)
            SQL, ['newest' => $newest->id, 'set' => $set->id, 'made' => $set->tally_id])[0];

        return $row->int('cells');
    }
}
