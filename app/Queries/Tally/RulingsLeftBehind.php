<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Adapters\Database\DatabaseRow;
use App\Models\Tally;
use App\Queries\Review\Mask;
use Illuminate\Database\Connection;

/**
 * Rulings of the tally before that stand on no finding of a tally: their finding is settled, or could not be told among the findings of
 * another key. They are listed, never dropped.
 */
final readonly class RulingsLeftBehind
{
    public function __construct(private Connection $database) {}

    /**
     * @param  Mask  $mask  over the tally before
     * @param  int  $from  counted from 1
     * @return list<array{key: string|null, column: string|null, class: string, cause: string|null, source: string|null,
     *     target: string|null, sourceLine: int|null, targetLine: int|null, decision: string, reason: string, ticket: string|null,
     *     by: string}>
     */
    public function page(Tally $tally, Mask $mask, int $from, int $limit): array
    {
        $rows = DatabaseRow::all($this->database, <<<'SQL'
            WITH standing AS (
                SELECT s.*, f.sequence, o.has_other_key FROM carry_overs o JOIN standing_findings s ON s.tally_id = o.from_tally_id
                JOIN cell_findings f ON f.tally_id = s.tally_id AND f.pattern_number = s.pattern_number AND f.pattern_ordinal = s.ordinal
                    WHERE o.tally_id = :tally
                UNION ALL
                SELECT s.*, f.sequence, o.has_other_key FROM carry_overs o JOIN standing_findings s ON s.tally_id = o.from_tally_id
                JOIN row_findings f ON f.tally_id = s.tally_id AND f.class = s.class AND f.class_ordinal = s.ordinal
                    WHERE o.tally_id = :tally
            ), behind AS (
                SELECT s.tally_id, s."group", s.sequence, s.ruling_id, s.decision FROM standing s
                WHERE s.decision <> 'open'
                    AND NOT EXISTS (SELECT 1 FROM carried_rulings c WHERE c.tally_id = :tally AND c.from_sequence = s.sequence
                        AND split_part(c."group", ':', 1) = split_part(s."group", ':', 1))
                    AND NOT (s.has_other_key AND EXISTS (SELECT 1 FROM carried_rulings h WHERE h.tally_id = :tally
                        AND h.from_sequence IS NULL AND h.ruling_id = s.ruling_id))
                ORDER BY s."group", s.sequence OFFSET :skipped LIMIT :limit
            )
            SELECT r.key, p.source_column AS "column", coalesce(f.class, r.class) AS class, f.cause, f.source_value, f.target_value,
                r.source_line, r.target_line, b.decision, a.reason, a.ticket, u.name AS by
            FROM behind b
            LEFT JOIN cell_findings f ON b."group" LIKE 'pattern:%' AND f.tally_id = b.tally_id AND f.sequence = b.sequence
            LEFT JOIN patterns p ON p.tally_id = f.tally_id AND p.number = f.pattern_number
            JOIN row_findings r ON r.tally_id = b.tally_id AND r.sequence = coalesce(f.row_sequence, b.sequence)
            JOIN rulings a ON a.id = b.ruling_id JOIN users u ON u.id = a.user_id
            ORDER BY b."group", b.sequence
            SQL, ['tally' => $tally->id, 'skipped' => $from - 1, 'limit' => $limit]);

        return array_map(static function (DatabaseRow $row) use ($mask): array {
            $column = $row->textOrNull('column');
            $isMasked = $column !== null && $mask->hides($column);

            return [
                'key' => $mask->key($row->textOrNull('key')),
                'column' => $column,
                'class' => $row->text('class'),
                'cause' => $row->textOrNull('cause'),
                'source' => $isMasked ? null : $row->textOrNull('source_value'),
                'target' => $isMasked ? null : $row->textOrNull('target_value'),
                'sourceLine' => $row->intOrNull('source_line'),
                'targetLine' => $row->intOrNull('target_line'),
                'decision' => $row->text('decision'),
                'reason' => $row->text('reason'),
                'ticket' => $row->textOrNull('ticket'),
                'by' => $row->text('by'),
            ];
        }, $rows);
    }
}
