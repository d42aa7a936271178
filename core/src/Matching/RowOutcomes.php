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
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Row\Side;

/** What becomes of rows whose counterpart is known, or known to be missing: counted, and a finding where they do not agree. */
final class RowOutcomes
{
    /** @var array{source: array<int, FindingEntry>, target: array<int, FindingEntry>} by line */
    public array $findings = ['source' => [], 'target' => []];

    /**
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  list<ColumnComparison>  $keyColumns  to name what the key forgives; empty where it forgives nothing
     */
    public function __construct(
        private readonly SideRows $source,
        private readonly SideRows $target,
        private readonly RowComparison $comparison,
        private readonly MatchCounts $counts,
        private readonly array $bridges,
        private readonly array $keyColumns,
        private readonly PostingBuffer $postings,
    ) {}

    /** Whether rows whose bodies are equal bytes have to be looked at all the same. */
    public function looksAtAll(): bool
    {
        return $this->comparison->readsEqualBytes || $this->keyColumns !== [];
    }

    public function comparePair(
        string $key,
        SpilledRows $source,
        int $place,
        SpilledRows $target,
        int $other,
        int $ordinal = 1,
        int $sourceRows = 1,
        int $targetRows = 1,
        bool $isBridged = false,
    ): void {
        $line = $source->lines->at($place);
        if ($this->keyColumns !== [] && ! $isBridged) {
            $this->countForgivenKey($this->source->deliveredKey($source, $place), $this->target->deliveredKey($target, $other), $line);
        }
        $cells = $this->comparison->compare(
            $source->bodies[$place],
            $target->bodies[$other],
            $line,
            fn(): array => [$this->source->row($source, $place), $this->target->row($target, $other)],
        );
        $differs = array_filter($cells, static fn(array $cell): bool => $cell[1] !== CellClass::Forgiven->value) !== [];
        $this->counts->countMet($differs ? RowClass::Changed : RowClass::Agreed);
        $this->counts->bridged += $isBridged ? 1 : 0;
        if ($cells !== []) {
            $this->findings['source'][$line] = new FindingEntry(
                $line,
                $differs ? RowClass::Changed : RowClass::Agreed,
                null,
                $key,
                $ordinal,
                $this->source->row($source, $place),
                $this->target->row($target, $other),
                $target->lines->at($other),
                $sourceRows,
                $targetRows,
                cells: $cells,
                isBridged: $isBridged,
            );
        }
    }

    public function recordUnmatched(
        Side $side,
        string $key,
        SpilledRows $rows,
        int $place,
        int $ordinal = 1,
        int $sourceRows = 0,
        int $targetRows = 0,
    ): void {
        $isSource = $side === Side::Source;
        $reason = match (true) {
            ($isSource ? $targetRows : $sourceRows) > 0 => RowReason::FewerRows,
            $this->isInIdleBridge($side, $key) => RowReason::IdleBridge,
            default => null,
        };
        $this->counts->count($side, $isSource ? RowClass::Missing : RowClass::Extra);
        $this->findings[$side->value][$rows->lines->at($place)] = new FindingEntry(
            $rows->lines->at($place),
            $isSource ? RowClass::Missing : RowClass::Extra,
            $side,
            $key,
            $ordinal,
            $isSource ? $this->source->row($rows, $place) : null,
            $isSource ? null : $this->target->row($rows, $place),
            sourceRows: $isSource ? max(1, $sourceRows) : $sourceRows,
            targetRows: $isSource ? $targetRows : max(1, $targetRows),
            reason: $reason,
        );
    }

    private function isInIdleBridge(Side $side, string $key): bool
    {
        foreach ($this->counts->idleBridges as $number) {
            if ($this->bridges[$number][$side->value] === $key) {
                return true;
            }
        }

        return false;
    }

    private function countForgivenKey(string $source, string $target, int $line): void
    {
        if ($source === $target) {
            return;
        }
        $targetCells = explode(Batch::CELL_END, $target);
        foreach (explode(Batch::CELL_END, $source) as $column => $cell) {
            if ($cell !== $targetCells[$column]) {
                $cause = (string) $this->keyColumns[$column]->classify($cell, $targetCells[$column])->cause?->id;
                $this->counts->keyForgiven[$column][$cause] = ($this->counts->keyForgiven[$column][$cause] ?? 0) + 1;
                $this->postings->of(RowComparison::keyPattern($column, $cause))->add($line);
            }
        }
    }

    /**
     * The rows that were kept of keys that are too many to be held.
     *
     * @param  array<string, RepeatedKey>  $groups
     * @param  array<string, array{source?: array{SpilledRows, int}, target?: array{SpilledRows, int}}>  $kept
     */
    public function compareKept(array $groups, array $kept): void
    {
        foreach ($kept as $key => $rows) {
            [$source, $sourceOrdinal] = $rows['source'] ?? [null, 1];
            [$target, $targetOrdinal] = $rows['target'] ?? [null, 1];
            $counts = $groups[$key]->rows;
            if ($source !== null && $target !== null) {
                $this->comparePair((string) $key, $source, 0, $target, 0, $sourceOrdinal, $counts['source'], $counts['target']);
            } elseif ($source !== null) {
                $this->recordUnmatched(Side::Source, (string) $key, $source, 0, $sourceOrdinal, $counts['source']);
            } elseif ($target !== null) {
                $this->recordUnmatched(Side::Target, (string) $key, $target, 0, $targetOrdinal, targetRows: $counts['target']);
            }
        }
    }
}
