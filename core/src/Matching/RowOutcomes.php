<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\SpilledRow;
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\TotalShares;

/** What becomes of rows whose counterpart is known, or known to be missing: counted, and a finding where they do not agree. */
final class RowOutcomes
{
    /** @var array{source: array<int, FindingEntry>, target: array<int, FindingEntry>} by line */
    public array $findings = ['source' => [], 'target' => []];

    /** @var array<string, array<array-key, true>> by side: keys of bridges that joined nothing */
    private array $idleKeys = [];

    /** How many of these bridges are among them. */
    private int $indexedBridges = 0;

    /**
     * @param  Sides<SideRows>  $sides
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  list<ColumnComparison>  $keyColumns  to name what the key forgives; empty where it forgives nothing
     */
    public function __construct(
        private readonly Sides $sides,
        private readonly RowComparison $comparison,
        private readonly MatchCounts $counts,
        private readonly array $bridges,
        private readonly array $keyColumns,
        private readonly PostingBuffer $postings,
        private readonly ?TotalShares $totals = null,
        private readonly bool $totalsNeedAll = false,
    ) {}

    /** Whether rows whose bodies are equal bytes have to be looked at all the same. */
    public function looksAtAll(): bool
    {
        return $this->comparison->readsEqualBytes || $this->keyColumns !== [] || $this->totalsNeedAll;
    }

    /**
     * Rows that met alone, and whose bodies are not the same bytes.
     *
     * @param  array<int, int>  $places  of the source => of the target, in the order of the source
     */
    public function compareDiffering(SpilledRows $source, SpilledRows $target, array $places): void
    {
        $left = array_keys($places);
        if ($this->comparison->inBulk !== null && $this->keyColumns === [] && $this->totals === null) {
            $left = $this->comparison->inBulk->leftOver(
                array_map(static fn(int $place): string => $source->bodies[$place], $left),
                array_map(static fn(int $place): string => $target->bodies[$place], array_values($places)),
                array_map($source->lines->at(...), $left),
            );
            $this->counts->countMet(RowClass::Agreed, count($places) - count($left));
            $this->counts->agreedByRule += $this->comparison->inBulk->byRule;
            $all = array_keys($places);
            $left = array_map(static fn(int $nth): int => $all[$nth], $left);
        }
        foreach ($left as $place) {
            $this->comparePair($source->row($place), $target->row($places[$place]));
        }
    }

    public function comparePair(
        SpilledRow $source,
        SpilledRow $target,
        int $ordinal = 1,
        int $sourceRows = 1,
        int $targetRows = 1,
        bool $isBridged = false,
    ): void {
        $isKeyForgiven =
            $this->keyColumns !== [] &&
            ! $isBridged &&
            $this->countForgivenKey(
                $this->sides->source->deliveredKey($source),
                $this->sides->target->deliveredKey($target),
                $source->line,
            );
        $cells = $this->comparison->compare(
            $source->body,
            $target->body,
            $source->line,
            fn(): array => [$this->sides->source->row($source), $this->sides->target->row($target)],
        );
        $differs = array_filter($cells, static fn(array $cell): bool => $cell[1] !== CellClass::Forgiven->value) !== [];
        $this->counts->countMet($differs ? RowClass::Changed : RowClass::Agreed);
        $this->counts->bridged += $isBridged ? 1 : 0;
        if (! $differs) {
            $byRule = $isKeyForgiven || $this->comparison->hasForgiven;
            $this->counts->agreedByRule += $byRule ? 1 : 0;
            $this->counts->agreedWithoutOneKey[$byRule ? 'byRule' : 'identical'] +=
                $isBridged || $sourceRows > 1 || $targetRows > 1 ? 1 : 0;
        }
        if (! $differs && $this->totals !== null) {
            $this->totals->seeAgreed(
                explode(Batch::CELL_END, $this->sides->source->row($source)),
                explode(Batch::CELL_END, $this->sides->target->row($target)),
            );
        }
        if ($cells !== [] || ($isKeyForgiven && $this->comparison->listsForgiven)) {
            $this->findings['source'][$source->line] = new FindingEntry(
                $source->line,
                $differs ? RowClass::Changed : RowClass::Agreed,
                null,
                $source->key,
                $ordinal,
                $this->sides->source->row($source),
                $this->sides->target->row($target),
                $target->line,
                $sourceRows,
                $targetRows,
                cells: $cells,
                isBridged: $isBridged,
            );
        }
    }

    public function recordUnmatched(Side $side, SpilledRow $row, int $ordinal = 1, int $sourceRows = 0, int $targetRows = 0): void
    {
        $isSource = $side === Side::Source;
        $reason = match (true) {
            ($isSource ? $targetRows : $sourceRows) > 0 => RowReason::FewerRows,
            $this->isInIdleBridge($side, $row->key) => RowReason::IdleBridge,
            default => null,
        };
        $this->counts->count($side, $isSource ? RowClass::Missing : RowClass::Extra);
        $this->findings[$side->value][$row->line] = new FindingEntry(
            $row->line,
            $isSource ? RowClass::Missing : RowClass::Extra,
            $side,
            $row->key,
            $ordinal,
            $isSource ? $this->sides->source->row($row) : null,
            $isSource ? null : $this->sides->target->row($row),
            sourceRows: $isSource ? max(1, $sourceRows) : $sourceRows,
            targetRows: $isSource ? $targetRows : max(1, $targetRows),
            reason: $reason,
        );
    }

    private function isInIdleBridge(Side $side, string $key): bool
    {
        // Bridges are gone through before the rows that they leave alone: there may be tens of thousands of both.
        for ($known = $this->indexedBridges; $known < count($this->counts->idleBridges); $known++) {
            ['source' => $source, 'target' => $target] = $this->bridges[$this->counts->idleBridges[$known]];
            $this->idleKeys[Side::Source->value][$source] = $this->idleKeys[Side::Target->value][$target] = true;
        }
        $this->indexedBridges = $known;

        return isset($this->idleKeys[$side->value][$key]);
    }

    private function countForgivenKey(string $source, string $target, int $line): bool
    {
        if ($source === $target) {
            return false;
        }
        $targetCells = explode(Batch::CELL_END, $target);
        foreach (explode(Batch::CELL_END, $source) as $column => $cell) {
            if ($cell !== $targetCells[$column]) {
                $cause = $this->keyColumns[$column]->classify($cell, $targetCells[$column])->cause;
                $id = $cause->id ?? '';
                $pattern = $this->counts->keyForgiven[$column][$id] ??= new ForgivenPattern($id, $cause->facts ?? []);
                $pattern->cells++;
                $pattern->keep($line, $cell, $targetCells[$column], null);
                $this->postings->of(RowComparison::keyPattern($column, $id))->add($line);
            }
        }

        return true;
    }

    /**
     * The row that was kept of a key that repeats, or one of each side.
     *
     * @param  array{source?: array{SpilledRow, int}, target?: array{SpilledRow, int}}  $kept  each with its place among the rows of its key
     */
    public function compareKept(RepeatedKey $group, array $kept): void
    {
        foreach (Side::cases() as $side) {
            if (isset($kept[$side->value]) && $group->rows[$side->value] > 1) {
                $this->counts->countByPolicy($side, true);
            }
        }
        [$source, $sourceOrdinal] = $kept['source'] ?? [null, 1];
        [$target, $targetOrdinal] = $kept['target'] ?? [null, 1];
        if ($source !== null && $target !== null) {
            $this->comparePair($source, $target, $sourceOrdinal, $group->rows['source'], $group->rows['target']);
        } elseif ($source !== null) {
            $this->recordUnmatched(Side::Source, $source, $sourceOrdinal, $group->rows['source']);
        } elseif ($target !== null) {
            $this->recordUnmatched(Side::Target, $target, $targetOrdinal, targetRows: $group->rows['target']);
        }
    }
}
