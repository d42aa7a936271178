<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\BlankCells;
use NineTally\Core\Matching\BlockFigures;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\MergeScan;
use NineTally\Core\Matching\MovedValues;
use NineTally\Core\Matching\PartitionMatch;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\RowComparison;
use NineTally\Core\Matching\RowEncoding;
use NineTally\Core\Matching\RowOutcomes;
use NineTally\Core\Matching\Scan;
use NineTally\Core\Matching\SideRows;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\RepeatRules;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\PlanTotals;
use NineTally\Core\Value\Reading;

/** What a tally is made with: the parts that read a side, match a partition and compare its cells, as the plan wants them. */
final class TallyParts
{
    public readonly int $partitions;

    public readonly CauseCatalogue $catalogue;

    /** @var list<ColumnComparison>|null kept from task to task, for what they remember of value pairs */
    private ?array $comparisons = null;

    /** @var array<string, KeyForm> by side */
    private array $keyForms = [];

    public readonly PlanTotals $totals;

    /** @var Sides<RowEncoding> */
    private readonly Sides $layouts;

    /** @param Sides<Reader> $readers */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        private readonly TallySettings $settings,
    ) {
        $plan->mustFit($readers->source->columns(), $readers->target->columns());
        $this->partitions = $settings->partitions(max($readers->source->bytes(), $readers->target->bytes()));
        $this->catalogue = new CauseCatalogue;
        $this->layouts = $this->layouts();
        $this->totals = new PlanTotals(
            $plan,
            $readers->map(static fn(Reader $reader): Columns => $reader->columns()),
            $this->layouts->map(static fn(RowEncoding $layout): array => $layout->keyPositions),
            $this->catalogue->forms,
        );
    }

    public function scan(Side $side): Scan
    {
        $layout = $this->layouts->of($side);

        return new Scan(
            $side,
            $this->readers->of($side),
            $layout,
            $this->keyForm($side),
            $this->bridgedKeys(),
            $this->partitions,
            $this->settings->bufferBytes($this->partitions),
            new BlockFigures(new BlankCells($layout->pairedPositions, $this->readings($side)), $this->totals->ofSide($side)),
        );
    }

    public function sideBySideScan(): MergeScan
    {
        return new MergeScan(
            Sides::each($this->scan(...))->named(),
            count($this->plan->key),
            $this->partitions,
            $this->settings->bufferBytes($this->partitions),
        );
    }

    /** Only where equal bytes are equal rows, and nothing but the key decides about a row. */
    public function couldBeReadSideBySide(): bool
    {
        $readsEqualBytes = array_filter($this->comparisons(), static fn(ColumnComparison $column): bool => $column->readsEqualBytes) !== [];

        return $this->settings->triesSideBySide &&
            $this->layouts->source->isWhole &&
            $this->layouts->source->keyComesFirst &&
            $this->plan->bridges->confirmed === [] &&
            $this->plan->keptRows() === [] &&
            ! $readsEqualBytes &&
            ! $this->totals->needAllRows() &&
            $this->plan->source->repeats->isDefault() &&
            $this->plan->target->repeats->isDefault();
    }

    /**
     * @param  Sides<SpillReader>  $spills
     * @param  SpillReader|null  $pairs  rows that paired while both sides were read at once
     */
    public function partitionMatch(Sides $spills, ?SpillReader $pairs, MatchCounts $counts, PostingBuffer $postings): PartitionMatch
    {
        $sides = Sides::each(fn(Side $side): SideRows => $this->sideRows($side, $spills->of($side)));
        $comparison = new RowComparison(
            $this->comparisons(),
            $this->layouts->map(static fn(RowEncoding $layout): array => $layout->comparedPositions()),
            $counts,
            $this->movedValues(),
            $postings,
            $this->settings->listsForgiven,
        );
        $keyColumns = $this->hasPlainKeys() ? [] : array_map($this->planComparisons()->ofKey(...), $this->plan->key);
        $bridges = $this->bridges();
        $shares = $this->totals->shares($counts->shares, $this->comparisons());

        return new PartitionMatch(
            $sides,
            $pairs,
            new RowOutcomes($sides, $comparison, $counts, $bridges, $keyColumns, $postings, $shares, $this->totals->needAllRows()),
            $counts,
            $bridges,
            $this->settings->largePartition(),
        );
    }

    /** @return list<ColumnComparison> by column pair */
    public function comparisons(): array
    {
        return $this->comparisons ??= array_map($this->planComparisons()->ofPair(...), $this->plan->columnPairs);
    }

    public function keyForm(Side $side): KeyForm
    {
        return $this->keyForms[$side->value] ??= $this->plan->keyForm($side, $this->catalogue->forms);
    }

    /** @param array{source: array<int, int>, target: array<int, int>} $blanks of each side, by column pair: its blank cells */
    public function valueCounts(array $blanks): ValueCounts
    {
        return new ValueCounts(
            $this->layouts->map(static fn(RowEncoding $layout): array => $layout->pairedPositions)->named(),
            Sides::each($this->readings(...))->named(),
            $blanks,
        );
    }

    /** @return list<Reading> of the compared columns, by column pair */
    private function readings(Side $side): array
    {
        return array_map(
            fn(ColumnPair $pair): Reading => $this->plan
                ->side($side)
                ->reading($side === Side::Source ? $pair->source : $pair->target, $pair->kind),
            $this->plan->columnPairs,
        );
    }

    private function movedValues(): MovedValues
    {
        return new MovedValues(
            $this->readers->map(static fn(Reader $reader): Columns => $reader->columns()),
            $this->layouts->map(static fn(RowEncoding $layout): array => $layout->pairedPositions),
            $this->layouts->map(static fn(RowEncoding $layout): array => $layout->keyPositions),
        );
    }

    private function sideRows(Side $side, SpillReader $spill): SideRows
    {
        return new SideRows(
            $side,
            $spill,
            $this->layouts->of($side),
            $this->repeatRules($side),
            $this->hasPlainKeys(),
        );
    }

    private function planComparisons(): PlanComparisons
    {
        return new PlanComparisons($this->plan, $this->catalogue);
    }

    /** @return Sides<RowEncoding> */
    private function layouts(): Sides
    {
        $widths = Sides::each(fn(Side $side): int => $this->columns($side)->count());
        $keys = Sides::each(fn(Side $side): array => $this->columns($side)->positionsOf($this->plan->keyNames($side)));
        $paired = Sides::each(fn(Side $side): array => $this->columns($side)->positionsOf($this->plan->pairedNames($side)));
        $onlyTotalled = PlanTotals::uncomparedPairs($this->plan);
        $totalled = Sides::each(
            fn(Side $side): array => $this->columns($side)->positionsOf(array_column($onlyTotalled, $side->value)),
        );
        $isWhole =
            $this->hasPlainKeys() &&
            $widths->source === $widths->target &&
            $keys->source === $keys->target &&
            $paired->source === $paired->target &&
            $totalled->source === $totalled->target &&
            count(array_unique([...$keys->source, ...$paired->source, ...$totalled->source])) === $widths->source;

        return Sides::each(
            static fn(Side $side): RowEncoding => new RowEncoding(
                $keys->of($side),
                $paired->of($side),
                $widths->of($side),
                $isWhole,
                $totalled->of($side),
            ),
        );
    }

    private function hasPlainKeys(): bool
    {
        return $this->keyForm(Side::Source)->isPlain && $this->keyForm(Side::Target)->isPlain;
    }

    /** @return list<array{source: string, target: string}> canonical keys, in the order of the plan */
    public function bridges(): array
    {
        [$source, $target] = Sides::each($this->keyForm(...))->both();

        return array_map(
            static fn(Bridge $bridge): array => [
                'source' => $source->canonical($bridge->source),
                'target' => $target->canonical($bridge->target),
            ],
            $this->plan->bridges->confirmed,
        );
    }

    /** @return array<string, true> both ends of all bridges, for either side may hold either */
    private function bridgedKeys(): array
    {
        $keys = [];
        foreach ($this->bridges() as $bridge) {
            $keys[$bridge['source']] = $keys[$bridge['target']] = true;
        }

        return $keys;
    }

    /** What becomes of rows of a side that share a key. */
    public function repeatRules(Side $side): RepeatRules
    {
        return (new PlannedRepeats($this->plan->side($side), $this->columns($side), $this->keyForm($side)))->rules();
    }

    private function columns(Side $side): Columns
    {
        return $this->readers->of($side)->columns();
    }
}
