<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\BlankCells;
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
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\Decider;
use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use NineTally\Core\Value\ValueOrder;

/** What a tally is made with: the parts that read a side, match a partition and compare its cells, as the plan wants them. */
final class TallyParts
{
    public readonly int $partitions;

    public readonly CauseCatalogue $catalogue;

    /** @var list<ColumnComparison>|null kept from task to task, for what they remember of value pairs */
    private ?array $comparisons = null;

    /** @var array<string, KeyForm> by side */
    private array $keyForms = [];

    private readonly RowEncoding $sourceLayout;

    private readonly RowEncoding $targetLayout;

    public function __construct(
        private readonly Plan $plan,
        private readonly Reader $source,
        private readonly Reader $target,
        private readonly TallySettings $settings,
    ) {
        $plan->mustFit($source->columns(), $target->columns());
        $this->partitions = $settings->partitions(max($source->bytes(), $target->bytes()));
        $this->catalogue = new CauseCatalogue;
        [$this->sourceLayout, $this->targetLayout] = $this->layouts($source->columns(), $target->columns());
    }

    public function scan(Side $side): Scan
    {
        [$reader, $layout] = $side === Side::Source ? [$this->source, $this->sourceLayout] : [$this->target, $this->targetLayout];

        return new Scan(
            $side,
            $reader,
            $layout,
            $this->keyForm($side),
            $this->bridgedKeys(),
            $this->partitions,
            $this->settings->bufferBytes(),
            new BlankCells($layout->pairedPositions, $this->readings($side)),
        );
    }

    public function sideBySideScan(): MergeScan
    {
        return new MergeScan(
            ['source' => $this->scan(Side::Source), 'target' => $this->scan(Side::Target)],
            count($this->plan->key),
            $this->partitions,
            $this->settings->bufferBytes(),
        );
    }

    /** Only where equal bytes are equal rows, and nothing but the key decides about a row. */
    public function couldBeReadSideBySide(): bool
    {
        $readsEqualBytes = array_filter($this->comparisons(), static fn(ColumnComparison $column): bool => $column->readsEqualBytes) !== [];

        return $this->settings->triesSideBySide &&
            $this->sourceLayout->isWhole &&
            $this->sourceLayout->keyComesFirst &&
            $this->plan->bridges === [] &&
            ! $readsEqualBytes &&
            $this->plan->source->repeats->isDefault() &&
            $this->plan->target->repeats->isDefault();
    }

    /** @param SpillReader|null $pairs rows that paired while both sides were read at once */
    public function partitionMatch(
        SpillReader $source,
        SpillReader $target,
        ?SpillReader $pairs,
        MatchCounts $counts,
        PostingBuffer $postings,
    ): PartitionMatch {
        [$sourceRows, $targetRows] = [$this->sideRows(Side::Source, $source), $this->sideRows(Side::Target, $target)];
        $comparison = new RowComparison(
            $this->comparisons(),
            $this->sourceLayout->comparedPositions(),
            $this->targetLayout->comparedPositions(),
            $counts,
            $this->movedValues(),
            $postings,
            $this->settings->listsForgiven,
        );
        $keyColumns = $this->hasPlainKeys() ? [] : array_map($this->keyComparison(...), $this->plan->key);
        $bridges = $this->bridges();

        return new PartitionMatch(
            $sourceRows,
            $targetRows,
            $pairs,
            new RowOutcomes($sourceRows, $targetRows, $comparison, $counts, $bridges, $keyColumns, $postings),
            $counts,
            $bridges,
            $this->settings->largePartition(),
        );
    }

    /** @return list<ColumnComparison> by column pair */
    public function comparisons(): array
    {
        return $this->comparisons ??= array_map(
            fn(ColumnPair $pair): ColumnComparison => new ColumnComparison(
                $pair,
                $this->plan->source->reading($pair->source, $pair->kind),
                $this->plan->target->reading($pair->target, $pair->kind),
                $this->catalogue,
            ),
            $this->plan->columnPairs,
        );
    }

    public function keyForm(Side $side): KeyForm
    {
        return $this->keyForms[$side->value] ??= $this->plan->keyForm($side, $this->catalogue->forms);
    }

    /** @param array{source: array<int, int>, target: array<int, int>} $blanks of each side, by column pair: its blank cells */
    public function valueCounts(array $blanks): ValueCounts
    {
        return new ValueCounts(
            ['source' => $this->sourceLayout->pairedPositions, 'target' => $this->targetLayout->pairedPositions],
            ['source' => $this->readings(Side::Source), 'target' => $this->readings(Side::Target)],
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
            $this->source->columns(),
            $this->target->columns(),
            $this->sourceLayout->pairedPositions,
            $this->targetLayout->pairedPositions,
            $this->sourceLayout->keyPositions,
            $this->targetLayout->keyPositions,
        );
    }

    private function sideRows(Side $side, SpillReader $spill): SideRows
    {
        return new SideRows(
            $side,
            $spill,
            $side === Side::Source ? $this->sourceLayout : $this->targetLayout,
            $this->plan->side($side)->repeats,
            $this->deciders($side),
            $this->columns($side)->positionsOf($this->plan->side($side)->repeats->except),
            $this->hasPlainKeys(),
        );
    }

    private function keyComparison(KeyColumn $column): ColumnComparison
    {
        return new ColumnComparison(
            new ColumnPair('key', $column->source, $column->target, Kind::Text, $column->forgives),
            $this->plan->source->reading($column->source, Kind::Text),
            $this->plan->target->reading($column->target, Kind::Text),
            $this->catalogue,
        );
    }

    /** @return array{RowEncoding, RowEncoding} */
    private function layouts(Columns $source, Columns $target): array
    {
        $sourceKey = $source->positionsOf($this->plan->keyNames(Side::Source));
        $targetKey = $target->positionsOf($this->plan->keyNames(Side::Target));
        $sourcePaired = $source->positionsOf($this->plan->pairedNames(Side::Source));
        $targetPaired = $target->positionsOf($this->plan->pairedNames(Side::Target));
        $isWhole =
            $this->hasPlainKeys() &&
            $source->count() === $target->count() &&
            $sourceKey === $targetKey &&
            $sourcePaired === $targetPaired &&
            count(array_unique([...$sourceKey, ...$sourcePaired])) === $source->count();

        return [
            new RowEncoding($sourceKey, $sourcePaired, $source->count(), $isWhole),
            new RowEncoding($targetKey, $targetPaired, $target->count(), $isWhole),
        ];
    }

    private function hasPlainKeys(): bool
    {
        return $this->keyForm(Side::Source)->isPlain && $this->keyForm(Side::Target)->isPlain;
    }

    /** @return list<array{source: string, target: string}> canonical keys */
    private function bridges(): array
    {
        [$source, $target] = [$this->keyForm(Side::Source), $this->keyForm(Side::Target)];

        return array_map(
            static fn(Bridge $bridge): array => [
                'source' => $source->canonical($bridge->source),
                'target' => $target->canonical($bridge->target),
            ],
            $this->plan->bridges,
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

    /** @return list<Decider> */
    private function deciders(Side $side): array
    {
        $rules = $this->plan->side($side);

        return array_map(
            fn(DecidingColumn $deciding): Decider => new Decider(
                $this->columns($side)->positionOf($deciding->column),
                new ValueOrder($rules->reading($deciding->column, $deciding->kind)),
                $deciding->keepsHighest,
            ),
            $rules->repeats->deciding(),
        );
    }

    private function columns(Side $side): Columns
    {
        return ($side === Side::Source ? $this->source : $this->target)->columns();
    }
}
