<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Adapters\Database\DatabaseRow;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\StandingCount;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Ruling\BlockMembers;
use NineTally\Core\Ruling\EffectiveRulingBlock;

/** The findings that an act covers, by their group and by their places in its blocks. An undo covers nothing itself. */
final readonly class CoveredFindings
{
    public function __construct(private Connection $database) {}

    /** @return list<string> their names */
    public function groups(Ruling $act): array
    {
        return match ($act->scope) {
            RulingScope::Pattern => [FindingGroup::ofPattern((int) $act->pattern_number)->name()],
            RulingScope::RowClass => [FindingGroup::ofClass(RowClass::from((string) $act->row_class))->name()],
            RulingScope::Selection, RulingScope::Filter => array_map(
                static fn(DatabaseRow $row): string => $row->text('group'),
                DatabaseRow::all($this->database, 'SELECT DISTINCT "group" FROM ruling_members WHERE ruling_id = ? ORDER BY 1', [$act->id]),
            ),
            RulingScope::Cell, RulingScope::Row => array_keys($this->single($act)),
            RulingScope::Undo => [],
        };
    }

    /** @return array<string, array<int, BlockMembers>> group => number of the block => its findings that are covered */
    public function blocks(Ruling $act): array
    {
        return match ($act->scope) {
            RulingScope::Pattern, RulingScope::RowClass => array_map(
                fn(string $group): array => self::whole($this->findings($act->tally_id, $group)),
                array_combine($this->groups($act), $this->groups($act)),
            ),
            RulingScope::Selection, RulingScope::Filter => $this->members($act),
            RulingScope::Cell, RulingScope::Row => $this->single($act),
            RulingScope::Undo => [],
        };
    }

    /** @return array<string, array<int, BlockMembers>> those of a later tally that took the ruling over */
    public function carried(int $tallyId, Ruling $act): array
    {
        $blocks = [];
        foreach (GroupKind::cases() as $kind) {
            $rows = DatabaseRow::all($this->database, <<<SQL
                SELECT c."group", {$kind->blockIn('f')} AS block,
                    string_agg(lpad(to_hex({$kind->placeIn('f')}), 2, '0'), '' ORDER BY f.sequence) AS places
                FROM carried_rulings c JOIN {$kind->table()} f ON f.tally_id = c.tally_id AND f.sequence = c.sequence
                    AND {$kind->groupIn('f')} = c."group"
                WHERE c.tally_id = ? AND c.ruling_id = ? AND NOT c.is_changed GROUP BY 1, 2
                SQL, [$tallyId, $act->id]);
            foreach ($rows as $row) {
                $blocks[$row->text('group')][$row->int('block')] = BlockMembers::at($row->bytes('places'));
            }
        }

        return $blocks;
    }

    /** @return array<int, BlockMembers> of so many findings all */
    public static function whole(int $findings): array
    {
        $blocks = [];
        $full = BlockMembers::first(EffectiveRulingBlock::FINDINGS);
        for ($before = 0; $before < $findings; $before += EffectiveRulingBlock::FINDINGS) {
            $blocks[] = $findings - $before < EffectiveRulingBlock::FINDINGS ? BlockMembers::first($findings - $before) : $full;
        }

        return $blocks;
    }

    private function findings(int $tallyId, string $group): int
    {
        return StandingCount::query()->where('tally_id', $tallyId)->where('group', $group)->firstOrFail()->findings;
    }

    /** @return array<string, array<int, BlockMembers>> */
    private function members(Ruling $act): array
    {
        $blocks = [];
        foreach (
            DatabaseRow::all(
                $this->database,
                "SELECT \"group\", block, encode(places, 'hex') AS places FROM ruling_members WHERE ruling_id = ?",
                [$act->id],
            )
            as $row
        ) {
            $blocks[$row->text('group')][$row->int('block')] = BlockMembers::at($row->bytes('places'));
        }

        return $blocks;
    }

    /** @return array<string, array<int, BlockMembers>> */
    private function single(Ruling $act): array
    {
        $kind = $act->scope === RulingScope::Cell ? GroupKind::Pattern : GroupKind::RowClass;
        $found = $this->database->table("{$kind->table()} AS f")->where('f.tally_id', $act->tally_id)->where('f.sequence', $act->sequence)
            ->selectRaw("{$kind->groupIn('f')} AS \"group\", {$kind->blockIn('f')} AS block, {$kind->placeIn('f')} AS place")->first();
        if ($found === null) {
            return [];
        }
        $row = DatabaseRow::of($found);

        return [$row->text('group') => [$row->int('block') => BlockMembers::at(chr($row->int('place')))]];
    }
}
