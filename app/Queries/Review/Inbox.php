<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\User;
use Illuminate\Database\Connection;

/**
 * What waits for a person in the migrations that they belong to: what they are asked, as long as it stands in the latest tally, and where
 * they are mentioned.
 */
final readonly class Inbox
{
    private const MENTIONS = 100;

    public function __construct(private Connection $database) {}

    /**
     * @return list<array{act: int, datasetId: int, dataset: string, tally: int, tallyNumber: int, findings: int, by: string, at: string,
     *     reason: string, ticket: string|null, of: string}>
     */
    public function asked(User $person): array
    {
        $rows = DatabaseRow::all($this->database, <<<'SQL'
            SELECT a.id AS act, d.id AS dataset_id, d.name AS dataset, t.id AS tally, t.number AS tally_number, u.name AS by,
                to_char(a.created_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at, a.reason, a.ticket, CASE
                WHEN a.scope IN ('row', 'class') OR a.filter->>'of' = 'rows' THEN 'rows' ELSE 'cells' END AS of,
                s.findings
            FROM rulings a
            JOIN datasets d ON d.id = a.dataset_id
            JOIN memberships m ON m.migration_id = d.migration_id AND m.user_id = :person
            JOIN users u ON u.id = a.user_id
            JOIN LATERAL (SELECT id, number FROM tallies WHERE dataset_id = d.id ORDER BY number DESC LIMIT 1) t ON true
            JOIN standing_acts s ON s.tally_id = t.id AND s.ruling_id = a.id
            WHERE a.decision = 'ask' AND (a.asked_id = :person
                OR a.asked_id IN (SELECT from_id FROM moved_questions WHERE to_id = :person))
            ORDER BY a.id DESC
            SQL, ['person' => $person->id]);

        return array_map(
            static fn(DatabaseRow $row): array => [
                'act' => $row->int('act'),
                'datasetId' => $row->int('dataset_id'),
                'dataset' => $row->text('dataset'),
                'tally' => $row->int('tally'),
                'tallyNumber' => $row->int('tally_number'),
                'findings' => $row->int('findings'),
                'by' => $row->text('by'),
                'at' => $row->text('at'),
                'reason' => $row->text('reason'),
                'ticket' => $row->textOrNull('ticket'),
                'of' => $row->text('of'),
            ],
            $rows,
        );
    }

    /**
     * Samples of the latest tally that somebody else gave to the person, as long as they have not looked at all of it.
     *
     * @return list<array{check: int, datasetId: int, dataset: string, tallyNumber: int, rows: int, said: int, by: string, at: string}>
     */
    public function toLookAt(User $person): array
    {
        $rows = DatabaseRow::all($this->database, <<<'SQL'
            SELECT e.id AS check, d.id AS dataset_id, d.name AS dataset, t.number AS tally_number, u.name AS by,
                to_char(p.created_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at,
                (e.sizes->>'identical')::int + (e.sizes->>'byRule')::int AS rows,
                (SELECT count(DISTINCT place) FROM eye_verdicts WHERE eye_check_id = e.id AND user_id = p.user_id) AS said
            FROM eye_check_people p
            JOIN eye_checks e ON e.id = p.eye_check_id
            JOIN tallies t ON t.id = e.tally_id
            JOIN datasets d ON d.id = t.dataset_id
            JOIN memberships m ON m.migration_id = d.migration_id AND m.user_id = p.user_id
            JOIN users u ON u.id = p.given_by
            WHERE NOT EXISTS (SELECT 1 FROM purged_tallies WHERE tally_id = t.id)
                AND p.user_id = ? AND p.given_by <> p.user_id
                AND t.number = (SELECT max(number) FROM tallies WHERE dataset_id = d.id)
            ORDER BY p.id DESC
            SQL, [$person->id]);

        return array_values(
            array_filter(
                array_map(
                    static fn(DatabaseRow $row): array => [
                        'check' => $row->int('check'),
                        'datasetId' => $row->int('dataset_id'),
                        'dataset' => $row->text('dataset'),
                        'tallyNumber' => $row->int('tally_number'),
                        'rows' => $row->int('rows'),
                        'said' => $row->int('said'),
                        'by' => $row->text('by'),
                        'at' => $row->text('at'),
                    ],
                    $rows,
                ),
                static fn(array $check): bool => $check['said'] < $check['rows'],
            ),
        );
    }

    /**
     * @return list<array{id: int, datasetId: int, dataset: string, tally: int, tallyNumber: int, kind: string, target: string,
     *     text: string, by: string, at: string}> the newest first
     */
    public function mentioned(User $person): array
    {
        $rows = DatabaseRow::all($this->database, <<<'SQL'
            SELECT c.id, d.id AS dataset_id, d.name AS dataset, t.id AS tally, t.number AS tally_number, c.place->>'kind' AS kind,
                c.place->>'target' AS target, c.text, u.name AS by, to_char(c.created_at AT TIME ZONE 'UTC',
                'YYYY-MM-DD"T"HH24:MI:SS"Z"') AS at
            FROM comment_mentions cm
            JOIN comments c ON c.id = cm.comment_id
            JOIN datasets d ON d.id = c.dataset_id
            JOIN memberships m ON m.migration_id = d.migration_id AND m.user_id = cm.user_id
            JOIN tallies t ON t.id = c.tally_id
            JOIN users u ON u.id = c.user_id
            WHERE cm.user_id = ? AND NOT EXISTS (SELECT 1 FROM purged_tallies WHERE tally_id = c.tally_id)
            ORDER BY c.id DESC LIMIT ?
            SQL, [$person->id, self::MENTIONS]);

        return array_map(
            static fn(DatabaseRow $row): array => [
                'id' => $row->int('id'),
                'datasetId' => $row->int('dataset_id'),
                'dataset' => $row->text('dataset'),
                'tally' => $row->int('tally'),
                'tallyNumber' => $row->int('tally_number'),
                'kind' => $row->text('kind'),
                'target' => $row->text('target'),
                'text' => $row->text('text'),
                'by' => $row->text('by'),
                'at' => $row->text('at'),
            ],
            $rows,
        );
    }
}
