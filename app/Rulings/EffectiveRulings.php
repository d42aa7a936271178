<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Adapters\Database\DatabaseRow;
use App\Adapters\Database\ManyRows;
use App\Models\Decision;
use App\Models\Ruling;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Rulings\Storage\EffectiveRulingBlocks;
use Illuminate\Database\Connection;
use NineTally\Core\Ruling\BlockMembers;
use NineTally\Core\Ruling\EffectiveRulingBlock;

/**
 * The standing of each finding: the newest act of its tally that covers it and has not been undone, else the ruling that was taken over
 * from the tally before. An act counts as undone in the tally on which its undoing was entered, and in those after it.
 *
 * A projection of the acts. follow() brings it up to date after one act; rebuild() makes it again from all of them.
 */
final readonly class EffectiveRulings
{
    private const BLOCKS_AT_ONCE = 5_000;

    public function __construct(private Connection $database, private EffectiveRulingBlocks $kept, private CoveredFindings $coverage) {}

    /**
     * Until the transaction ends, nobody else rules on the tally: that gives the acts an order, and each sees what the one before has done.
     */
    public static function hold(Connection $database, int $tallyId): void
    {
        $database->select('SELECT pg_advisory_xact_lock(1, ?)', [$tallyId % 2_147_483_647]);
    }

    public function follow(Ruling $act): void
    {
        $undone = $act->scope === RulingScope::Undo ? Ruling::query()->findOrFail($act->undoes_id) : null;
        $blocks =
            $undone === null || $undone->tally_id === $act->tally_id
                ? $this->coverage->blocks($undone ?? $act)
                : $this->coverage->carried($act->tally_id, $undone);
        foreach ($this->chunks($blocks) as $group => $covered) {
            $numbers = array_keys($covered);
            $before = iterator_to_array($this->kept->read($act->tally_id, $group, $numbers));
            $after = $undone === null ? $this->ruled($act, $covered, $before) : $this->made($act->tally_id, $group, $numbers);
            $this->kept->replace($act->tally_id, $group, $numbers, $after);
            $this->countChange($act->tally_id, $group, $before, $after);
        }
    }

    /** On how many findings of a tally an act stands now. */
    public function findingsOf(Tally $tally, Ruling $act): int
    {
        $standing = $this->database->table('standing_acts')->where('tally_id', $tally->id)->where('ruling_id', $act->id)->first();

        return $standing === null ? 0 : DatabaseRow::of($standing)->int('findings');
    }

    public function rebuild(Tally $tally): void
    {
        ManyRows::withoutNestedLoops($this->database, function () use ($tally): void {
            $this->database->table('standing_acts')->where('tally_id', $tally->id)->delete();
            $tally->standingCounts()->update(['expected' => 0, 'defect' => 0, 'ask' => 0]);
            foreach ($tally->standingCounts()->orderBy('group')->get() as $count) {
                $made = $this->made($tally->id, $count->group, array_keys(CoveredFindings::whole($count->findings)));
                $this->kept->replace($tally->id, $count->group, null, $made);
                $this->countChange($tally->id, $count->group, [], $made);
            }
        });
    }

    /**
     * Not more at once than memory has room for.
     *
     * @param  array<string, array<int, BlockMembers>>  $groups
     * @return \Generator<string, array<int, BlockMembers>> a group comes as often as it takes
     */
    private function chunks(array $groups): \Generator
    {
        foreach ($groups as $group => $blocks) {
            foreach (array_chunk($blocks, self::BLOCKS_AT_ONCE, preserve_keys: true) as $some) {
                yield $group => $some;
            }
        }
    }

    /**
     * The act is the newest: it stands for all that it covers, whatever stood before.
     *
     * @param  array<int, BlockMembers>  $covered  by number of the block, as are all blocks here
     * @param  array<int, EffectiveRulingBlock>  $before
     * @return array<int, EffectiveRulingBlock>
     */
    private function ruled(Ruling $act, array $covered, array $before): array
    {
        $decision = $act->decision->value ?? throw new \LogicException('Only an undo decides nothing.');
        $after = [];
        foreach ($covered as $number => $members) {
            $after[$number] = ($before[$number] ?? EffectiveRulingBlock::undecided())->ruled($act->id, $decision, $members);
        }

        return $after;
    }

    /**
     * Blocks of a group as all acts together leave them.
     *
     * @param  list<int>  $numbers
     * @return array<int, EffectiveRulingBlock>
     */
    private function made(int $tallyId, string $group, array $numbers): array
    {
        $made = array_fill_keys($numbers, EffectiveRulingBlock::undecided());
        foreach ($this->layers($tallyId, $group, $numbers) as $layer) {
            [$act, $decision, $number] = [$layer->int('id'), $layer->text('decision'), $layer->intOrNull('block')];
            $covered =
                $number === null
                    ? array_intersect_key(CoveredFindings::whole($layer->int('findings')), $made)
                    : [$number => BlockMembers::at($layer->bytes('places'))];
            foreach ($covered as $block => $members) {
                $made[$block] = $made[$block]->ruled($act, $decision, $members);
            }
        }

        return $made;
    }

    /**
     * What lies over some blocks of a group, the oldest first: the newest act on the whole group, and after it what covers some of its
     * findings.
     * A ruling that was taken over is older than any act of the tally.
     *
     * @param  list<int>  $blocks
     * @return list<DatabaseRow> of id, decision, findings (of the group), block and places; no block where it covers the whole group
     */
    private function layers(int $tallyId, string $group, array $blocks): array
    {
        $kind = FindingGroup::named($group)->kind;
        $place = "lpad(to_hex({$kind->placeIn('f')}), 2, '0')";
        $inGroup = $kind->groupIn('f');

        return DatabaseRow::all($this->database, <<<SQL
            WITH acts AS (
                SELECT a.id, a.scope, a.sequence, a.decision, coalesce(a.pattern_number::text, a.row_class) AS whole_of FROM rulings a
                WHERE a.tally_id = :tally AND a.scope <> 'undo'
                    AND NOT EXISTS (SELECT 1 FROM rulings u WHERE u.undoes_id = a.id AND u.tally_id <= :tally)
            ), layers AS (
                SELECT a.id, a.decision, c.findings, NULL::bigint AS block, NULL AS places
                FROM acts a JOIN standing_counts c ON c.tally_id = :tally AND c."group" = :group WHERE a.scope || ':' || a.whole_of = :group
                UNION ALL
                SELECT a.id, a.decision, 0, m.block, encode(m.places, 'hex') FROM acts a JOIN ruling_members m ON m.ruling_id = a.id
                    AND m."group" = :group
                UNION ALL
                SELECT a.id, a.decision, 0, {$kind->blockIn('f')}, {$place}
                FROM acts a JOIN {$kind->table()} f ON f.tally_id = :tally AND f.sequence = a.sequence AND {$inGroup} = :group
                WHERE a.scope = '{$kind->single()->value}'
                UNION ALL
                SELECT c.ruling_id, c.decision, 0, {$kind->blockIn('f')}, string_agg({$place}, '')
                FROM carried_rulings c JOIN {$kind->table()} f ON f.tally_id = c.tally_id AND f.sequence = c.sequence
                    AND {$inGroup} = c."group"
                WHERE c.tally_id = :tally AND c."group" = :group AND NOT c.is_changed
                    AND NOT EXISTS (SELECT 1 FROM rulings u WHERE u.undoes_id = c.ruling_id AND u.tally_id <= :tally)
                GROUP BY 1, 2, 4
            )
            SELECT * FROM layers WHERE (block IS NULL OR block = ANY(:blocks::bigint[])) AND id >= coalesce((SELECT max(id) FROM layers
                WHERE block IS NULL), 0) ORDER BY id
            SQL, ['tally' => $tallyId, 'group' => $group, 'blocks' => '{'.implode(',', $blocks).'}']);
    }

    /**
     * @param  array<int, EffectiveRulingBlock>  $before
     * @param  array<int, EffectiveRulingBlock>  $after
     */
    private function countChange(int $tallyId, string $group, array $before, array $after): void
    {
        $this->count(
            $tallyId,
            $group,
            $this->change($before, $after, static fn(EffectiveRulingBlock $block): array => $block->findingsByDecision()),
        );
        $this->countActs(
            $tallyId,
            $this->change($before, $after, static fn(EffectiveRulingBlock $block): array => $block->findingsByAct()),
        );
    }

    /**
     * @param  array<int, EffectiveRulingBlock>  $before
     * @param  array<int, EffectiveRulingBlock>  $after
     * @param  \Closure(EffectiveRulingBlock): array<array-key, int>  $counted
     * @return array<array-key, int> how many findings more, or fewer
     */
    private function change(array $before, array $after, \Closure $counted): array
    {
        $change = [];
        foreach ([[$before, -1], [$after, 1]] as [$blocks, $sign]) {
            foreach ($blocks as $block) {
                foreach ($counted($block) as $what => $findings) {
                    $change[$what] = ($change[$what] ?? 0) + $sign * $findings;
                }
            }
        }

        return array_filter($change);
    }

    /** @param array<array-key, int> $change */
    private function count(int $tallyId, string $group, array $change): void
    {
        $this->database->table('standing_counts')->where('tally_id', $tallyId)->where('group', $group)->incrementEach([
            'expected' => $change[Decision::Expected->value] ?? 0,
            'defect' => $change[Decision::Defect->value] ?? 0,
            'ask' => $change[Decision::Ask->value] ?? 0,
        ]);
    }

    /** @param array<array-key, int> $change by act */
    private function countActs(int $tallyId, array $change): void
    {
        foreach ($change as $act => $findings) {
            $this->database->statement(<<<'SQL'
                INSERT INTO standing_acts AS s (tally_id, ruling_id, findings) VALUES (?, ?, ?)
                ON CONFLICT (tally_id, ruling_id) DO UPDATE SET findings = s.findings + excluded.findings
                SQL, [$tallyId, $act, $findings]);
        }
        $this->database
            ->table('standing_acts')
            ->where('tally_id', $tallyId)
            ->whereIn('ruling_id', array_keys($change))
            ->where('findings', 0)
            ->delete();
    }
}
