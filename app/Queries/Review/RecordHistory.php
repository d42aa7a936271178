<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\Database\DatabaseRow;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Rulings\GroupKind;
use Illuminate\Database\Connection;

/**
 * Every act of ruling that ever covered the row of a key or one of its cells, in any tally of the dataset, whether it was undone, replaced
 * or taken over. A row without a key is known by its identity.
 */
final readonly class RecordHistory
{
    private const MOST = 500;

    public function __construct(private Connection $database) {}

    /**
     * @return list<array{act: Ruling, rows: list<string>, columns: list<string>, undo: Ruling|null}> the oldest first; the classes of the
     *     rows and the columns that each act was on
     */
    public function of(Tally $tally, int $sequence): array
    {
        $covered = [];
        foreach ($this->lines($tally, $sequence) as $line) {
            $covered[$line->int('act')][$line->text('of')][$line->text('name')] = true;
        }
        $acts = Ruling::query()->whereIntegerInRaw('id', array_keys($covered))->with(['user', 'asked', 'tally'])->orderBy('id')->get();
        $undoes = Ruling::query()->whereIntegerInRaw('undoes_id', array_keys($covered))->with(['user', 'tally'])->get()->keyBy('undoes_id');
        $names = static fn(array $of): array => array_map(strval(...), array_keys($of));

        return array_values(
            $acts->map(static fn(Ruling $act): array => [
                'act' => $act,
                'rows' => $names($covered[$act->id]['row'] ?? []),
                'columns' => $names($covered[$act->id]['cell'] ?? []),
                'undo' => $undoes->get($act->id),
            ])->all(),
        );
    }

    /** @return list<DatabaseRow> of act, of (row or cell) and name (the class of the row, or the column of the cell) */
    private function lines(Tally $tally, int $sequence): array
    {
        $finding = static fn(GroupKind $kind, string $of): string => "{$kind->groupIn($of)} AS \"group\", {$kind->blockIn($of)} AS block, ".
            "{$kind->placeIn($of)} AS place, '{$kind->single()->value}' AS single";
        [$row, $cell] = [$finding(GroupKind::RowClass, 'r'), $finding(GroupKind::Pattern, 'c')];
        [$ofRow, $ofCell] = [RulingScope::Row->value, RulingScope::Cell->value];

        return DatabaseRow::all($this->database, <<<SQL
            WITH looked AS (
                SELECT key, identity FROM row_findings WHERE tally_id = :tally AND sequence = :sequence
            ), same_rows AS (
                SELECT f.tally_id, f.sequence, f.class, f.class_ordinal FROM tallies t JOIN looked l ON l.key IS NOT NULL
                    JOIN row_findings f ON f.tally_id = t.id AND "left"(f.key, 100) = "left"(l.key, 100) AND f.key = l.key
                WHERE t.dataset_id = :dataset
                UNION ALL
                SELECT f.tally_id, f.sequence, f.class, f.class_ordinal FROM tallies t JOIN looked l ON l.key IS NULL
                    JOIN row_findings f ON f.tally_id = t.id AND "left"(f.key, 100) IS NULL AND f.identity = l.identity
                WHERE t.dataset_id = :dataset
            ), findings AS (
                SELECT r.tally_id, r.sequence, {$row}, '{$ofRow}' AS of, r.class AS name FROM same_rows r
                UNION ALL
                SELECT c.tally_id, c.sequence, {$cell}, '{$ofCell}', p.source_column
                FROM same_rows r JOIN cell_findings c ON c.tally_id = r.tally_id AND c.row_sequence = r.sequence
                    JOIN patterns p ON p.tally_id = c.tally_id AND p.number = c.pattern_number
            )
            SELECT DISTINCT a.id AS act, f.of, f.name FROM findings f JOIN rulings a ON a.tally_id = f.tally_id AND a.scope <> 'undo' AND (
                a.scope || ':' || coalesce(a.pattern_number::text, a.row_class) = f."group"
                OR (a.scope = f.single AND a.sequence = f.sequence)
                OR EXISTS (SELECT 1 FROM ruling_members m WHERE m.ruling_id = a.id AND m."group" = f."group" AND m.block = f.block
                    AND position(decode(lpad(to_hex(f.place), 2, '0'), 'hex') IN m.places) > 0))
            UNION
            SELECT c.ruling_id, f.of, f.name FROM findings f JOIN carried_rulings c ON c.tally_id = f.tally_id AND c."group" = f."group"
                AND c.sequence = f.sequence AND NOT c.is_changed
            ORDER BY 1 LIMIT
            SQL.' '.self::MOST, ['tally' => $tally->id, 'sequence' => $sequence, 'dataset' => $tally->dataset_id]);
    }
}
