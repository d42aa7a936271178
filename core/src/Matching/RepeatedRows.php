<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Row\Side;

/** What is done with each row of a key that repeats, whether the rows are held or stream by. */
final readonly class RepeatedRows
{
    public function __construct(private SideRows $source, private SideRows $target, private MatchCounts $counts) {}

    public function group(): RepeatedKey
    {
        return new RepeatedKey($this->source->keptRow(), $this->target->keptRow());
    }

    public function see(RepeatedKey $group, SideRows $side, SpilledRows $rows, int $place): void
    {
        $row = $side->row($rows, $place);
        $group->see($side->side->value, $rows->lines->at($place), $row, $side->deliveredKey($rows, $place));
    }

    /** When all rows of the key have been seen. */
    public function countKey(RepeatedKey $group): void
    {
        foreach (Side::cases() as $side) {
            if ($group->isUndecided($side->value)) {
                $this->counts->countUndecided($side);
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
        string $key,
        SpilledRows $rows,
        int $place,
        int $ordinal,
        RepeatedKey $group,
        ?array $kept,
    ): FindingEntry {
        $isSource = $side->side === Side::Source;
        $this->counts->count($side->side, RowClass::Repeated);

        return new FindingEntry(
            $rows->lines->at($place),
            RowClass::Repeated,
            $side->side,
            $key,
            $ordinal,
            $isSource ? $side->row($rows, $place) : null,
            $isSource ? null : $side->row($rows, $place),
            sourceRows: $group->rows['source'],
            targetRows: $group->rows['target'],
            keptLine: $kept === null ? null : $kept[$side->side->value],
            reason: $kept !== null && $group->isUndecided($side->side->value) ? RowReason::Undecided : null,
        );
    }
}
