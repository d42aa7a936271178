<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Adapters\DatabaseRow;
use App\Models\Ruling;
use App\Models\RulingScope;
use Illuminate\Database\Connection;

/** The groups whose findings an act covers, as the standings name them: findings that are ruled on together are those of a pattern, or the rows of a class. */
final readonly class GroupsOfAct
{
    public function __construct(private Connection $database) {}

    /** @return list<string> "pattern:3" or "class:missing"; none for an undo, which covers what it undoes */
    public function of(Ruling $act): array
    {
        return match ($act->scope) {
            RulingScope::Pattern => ["pattern:{$act->pattern_number}"],
            RulingScope::RowClass => ["class:{$act->row_class}"],
            RulingScope::Selection, RulingScope::Filter => $this->found('SELECT DISTINCT "group" FROM ruling_members WHERE ruling_id = ? ORDER BY 1', [$act->id]),
            RulingScope::Cell => $this->found("SELECT 'pattern:' || pattern_number AS \"group\" FROM cell_findings WHERE tally_id = ? AND sequence = ?", [$act->tally_id, $act->sequence]),
            RulingScope::Row => $this->found("SELECT 'class:' || class AS \"group\" FROM row_findings WHERE tally_id = ? AND sequence = ?", [$act->tally_id, $act->sequence]),
            RulingScope::Undo => [],
        };
    }

    /**
     * @param  list<int|null>  $bindings
     * @return list<string>
     */
    private function found(string $query, array $bindings): array
    {
        return array_map(static fn(DatabaseRow $row): string => $row->text('group'), DatabaseRow::all($this->database, $query, $bindings));
    }
}
