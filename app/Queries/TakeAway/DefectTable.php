<?php

declare(strict_types=1);

namespace App\Queries\TakeAway;

use App\Adapters\Database\DatabaseRow;
use App\Models\DefectEntry;
use App\Models\Ruling;
use App\Models\Tally;
use App\Queries\Review\FindingsOfAct;
use App\Queries\Review\Mask;
use App\Queries\Review\RulableCell;
use App\Queries\Review\RulableRow;
use App\Queries\Review\TallyColumns;
use Illuminate\Database\Connection;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Row\Side;

/**
 * Every finding that was ruled a defect, for a ticket system to take: known by its identity, with who mends it and whether it is still
 * there.
 */
final readonly class DefectTable implements Table
{
    /** So many findings are looked for at once in the newest tally, which is read once for each time. */
    private const AT_ONCE = 5_000;

    private TallyColumns $layout;

    public function __construct(
        private Tally $newest,
        private Mask $mask,
        private FindingsOfAct $findings,
        private Connection $database,
    ) {
        $this->layout = TallyColumns::ofTally($newest);
    }

    public function fields(): array
    {
        return [
            new TableField('identity', 'string', 'Of the finding, the same in every tally under one key.'),
            new TableField('ruling', 'integer', 'The act that ruled it a defect.'),
            new TableField('finding', 'string', 'row or cell.'),
            new TableField('class', 'string', 'missing, extra, repeated, unkeyed, refused; of a cell changed, blanked or filled.'),
            ...array_map(
                static fn(string $name): TableField => new TableField("key.{$name}", 'string', 'Cell of the key.'),
                $this->layout->plan->keyNames(Side::Source),
            ),
            new TableField('column', 'string', 'Of a cell: its column in the target.'),
            new TableField('source', 'string', 'Of a cell: the value of the source.'),
            new TableField('target', 'string', 'Of a cell: the value of the target.'),
            new TableField('cause', 'string', 'Of a cell: why they differ, in words.'),
            new TableField('ruling.reason', 'string', 'Why, as the person said it.'),
            new TableField('ruling.ticket', 'string', 'The ticket that was named.'),
            new TableField('ruling.by', 'string', 'Who ruled.'),
            new TableField('ruling.at', 'datetime', 'When, in UTC.'),
            new TableField('ruling.tally', 'integer', 'The number of the tally on which it was ruled.'),
            new TableField('mends', 'string', 'Who mends it.'),
            new TableField('due', 'string', 'Until which day.'),
            new TableField('state', 'string', 'there, or gone, by the newest tally.'),
            new TableField('tally', 'integer', 'The number of the newest tally.'),
        ];
    }

    public function primaryKey(): array
    {
        return ['ruling', 'identity'];
    }

    public function lines(): \Generator
    {
        $acts = Ruling::defectsOf($this->newest->dataset_id)->with(['user', 'tally.planVersion'])->orderBy('id')->get();
        $entries = DefectEntry::query()->whereIntegerInRaw('ruling_id', $acts->pluck('id'))->orderBy('id')->get()->keyBy('ruling_id');
        $read = 0;
        foreach ($acts as $act) {
            $entry = $entries->get($act->id);
            $of = TallyColumns::ofTally($act->tally);
            foreach ($this->inPortions($this->findings->of($act->tally, $act->id, $this->mask)) as $findings) {
                $there = $this->stillThere(array_map(strval(...), array_keys($findings)));
                foreach ($findings as $identity => $finding) {
                    yield ++$read => [
                        (string) $identity,
                        $act->id,
                        ...$finding instanceof RulableCell ? $this->cell($finding, $of) : $this->row($finding, $of),
                        $act->reason,
                        (string) $act->ticket,
                        $act->user->name,
                        $act->created_at->toIso8601ZuluString(),
                        $act->tally->number,
                        $entry->mends ?? '',
                        (string) $entry?->due,
                        isset($there[$identity]) ? 'there' : 'gone',
                        $this->newest->number,
                    ];
                }
            }
        }
    }

    /** @return list<string> */
    private function cell(RulableCell $cell, TallyColumns $of): array
    {
        return [
            'cell',
            $cell->finding->class->value,
            ...$this->key($cell->key->cells ?? [], $of),
            $of->plan->columnPairs[$cell->finding->pairPosition]->target,
            $cell->finding->source,
            $cell->finding->target,
            CauseId::sentenceFor($cell->finding->cause, $cell->finding->facts),
        ];
    }

    /** @return list<string> */
    private function row(RulableRow $row, TallyColumns $of): array
    {
        return ['row', $row->finding->class->value, ...$this->key($row->finding->deliveredKey->cells ?? [], $of), '', '', '', ''];
    }

    /**
     * @param  list<string>  $cells
     * @return list<string> under the key of the newest tally; blank where that of the act had no such column
     */
    private function key(array $cells, TallyColumns $of): array
    {
        $names = array_slice($of->plan->keyNames(Side::Source), 0, count($cells));
        $byName = array_combine($names, array_slice($cells, 0, count($names)));

        return array_map(static fn(string $name): string => $byName[$name] ?? '', $this->layout->plan->keyNames(Side::Source));
    }

    /**
     * @param  \Generator<string, RulableRow|RulableCell>  $findings
     * @return \Generator<int, non-empty-array<array-key, RulableRow|RulableCell>>
     */
    private function inPortions(\Generator $findings): \Generator
    {
        $some = [];
        foreach ($findings as $identity => $finding) {
            $some[$identity] = $finding;
            if (count($some) === self::AT_ONCE) {
                yield $some;
                $some = [];
            }
        }
        if ($some !== []) {
            yield $some;
        }
    }

    /**
     * @param  list<string>  $identities
     * @return array<array-key, true>
     */
    private function stillThere(array $identities): array
    {
        $known = '{'.implode(',', array_map(static fn(string $one): string => "\"\\\\x{$one}\"", $identities)).'}';
        $found = DatabaseRow::all($this->database, <<<'SQL'
            SELECT encode(identity, 'hex') AS identity FROM cell_findings WHERE tally_id = :tally AND identity = ANY(:known::bytea[])
            UNION ALL
            SELECT encode(identity, 'hex') FROM row_findings WHERE tally_id = :tally AND identity = ANY(:known::bytea[])
            SQL, ['tally' => $this->newest->id, 'known' => $known]);

        return array_fill_keys(array_map(static fn(DatabaseRow $row): string => $row->text('identity'), $found), true);
    }
}
