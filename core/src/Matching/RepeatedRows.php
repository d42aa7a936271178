<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\SpilledRow;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** What is done with each row of a key that repeats, whether the rows are held or stream by. */
final readonly class RepeatedRows
{
    /** @param Sides<SideRows> $sides */
    public function __construct(private Sides $sides, private MatchCounts $counts) {}

    public function group(string $key): RepeatedKey
    {
        return new RepeatedKey($this->sides->source->repeats->keptRow($key), $this->sides->target->repeats->keptRow($key));
    }

    public function see(RepeatedKey $group, SideRows $side, SpilledRow $row): void
    {
        $group->see($side->side->value, $row->line, $side->row($row), $side->deliveredKey($row));
    }

    /** When all rows of the key have been seen. */
    public function countKey(RepeatedKey $group, string $key): void
    {
        foreach (Side::cases() as $side) {
            if ($group->isUndecided($side->value)) {
                $this->counts->countUndecided($side);
            }
            $choice = $group->choice($side->value);
            if ($choice !== null) {
                $this->counts->countChoice($side, $choice, $key);
            }
            if ($group->rows[$side->value] > 1) {
                $this->counts->countRepeatedKey($side, $group->rows[$side->other()->value] === 0, $group->repeatsByForgiving($side->value));
            }
        }
    }

    /**
     * A row that was not kept, or set aside, counted.
     *
     * @param  array{source: int, target: int}|null  $kept  lines of the rows that are kept; null when all are set aside
     */
    public function notKept(
        SideRows $side,
        SpilledRow $row,
        int $ordinal,
        RepeatedKey $group,
        ?array $kept,
    ): FindingEntry {
        $isSource = $side->side === Side::Source;
        $this->counts->count($side->side, RowClass::Repeated);
        if ($kept !== null) {
            $this->counts->countByPolicy($side->side, false);
        }

        return new FindingEntry(
            $row->line,
            RowClass::Repeated,
            $side->side,
            $row->key,
            $ordinal,
            $isSource ? $side->row($row) : null,
            $isSource ? null : $side->row($row),
            sourceRows: $group->rows['source'],
            targetRows: $group->rows['target'],
            keptLine: $kept === null ? null : $kept[$side->side->value],
            reason: match (true) {
                $kept === null => RowReason::SetAside,
                $group->choice($side->side->value) === true => RowReason::NotChosen,
                $group->isUndecided($side->side->value) => RowReason::Undecided,
                default => RowReason::NotKept,
            },
        );
    }
}
