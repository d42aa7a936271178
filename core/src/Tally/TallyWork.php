<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Intake\ByteRange;
use NineTally\Core\Intake\Delimited\StrayQuotes;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\BlankCells;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\MovedValues;
use NineTally\Core\Matching\PartitionMatch;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\Postings\Postings;
use NineTally\Core\Matching\RowComparison;
use NineTally\Core\Matching\Scan;
use NineTally\Core\Matching\ScanResult;
use NineTally\Core\Matching\SideBySideScan;
use NineTally\Core\Matching\SideLayout;
use NineTally\Core\Matching\SideRows;
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Matching\Spill\UnfinishedFile;
use NineTally\Core\Matching\Spill\WorkspaceFailure;
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

/**
 * The work of a tally in pieces: ranges of both sides to be read, then partitions to be matched.
 *
 * Each piece is idempotent and leaves a file when it is done, so any worker can do any of them, again if need be, and they
 * may be divided among processes that share the workspace.
 */
final class TallyWork
{
    /** The piece that reads both sides at once. */
    private const BOTH_SIDES = 'both-0';

    public readonly int $partitions;

    private ?SpillReader $pairs = null;

    private ?bool $readsSideBySide = null;

    /** @var list<ColumnComparison>|null kept from piece to piece, for what they remember of value pairs */
    private ?array $comparisons = null;

    /** @var array<string, KeyForm> by side */
    private array $keyForms = [];

    private readonly CauseCatalogue $catalogue;

    private readonly SideLayout $sourceLayout;

    private readonly SideLayout $targetLayout;

    /** @var array<string, list<ByteRange>> by side */
    private array $ranges = [];

    /** @var array<string, SpillReader> by side */
    private array $spills = [];

    public function __construct(
        private readonly Plan $plan,
        private readonly Reader $source,
        private readonly Reader $target,
        private readonly string $workspace,
        private readonly TallySettings $settings,
    ) {
        $plan->mustFit($source->columns(), $target->columns());
        $this->partitions = $settings->partitions(max($source->bytes(), $target->bytes()));
        $this->catalogue = new CauseCatalogue;
        [$this->sourceLayout, $this->targetLayout] = $this->layouts($source->columns(), $target->columns());
    }

    /** @return list<string> names of the pieces that read both sides */
    public function scanPieces(): array
    {
        if ($this->readsSideBySide()) {
            return [self::BOTH_SIDES];
        }
        $pieces = [];
        foreach (Side::cases() as $side) {
            foreach (array_keys($this->rangesOf($side)) as $number) {
                $pieces[] = "{$side->value}-{$number}";
            }
        }

        return $pieces;
    }

    /** Decided once by whoever asks first, and written down: every worker has to divide the work alike. */
    private function readsSideBySide(): bool
    {
        if ($this->readsSideBySide !== null) {
            return $this->readsSideBySide;
        }
        [$yes, $no] = ["{$this->workspace}/side-by-side", "{$this->workspace}/one-after-the-other"];
        if (! is_file($yes) && ! is_file($no)) {
            UnfinishedFile::whole($this->couldBeReadSideBySide() && $this->sideBySide()->isWorthwhile() ? $yes : $no, '');
        }

        return $this->readsSideBySide = is_file($yes);
    }

    /** Only where equal bytes are equal rows, and nothing but the key decides about a row. */
    private function couldBeReadSideBySide(): bool
    {
        $readsEqualBytes = array_filter($this->comparisons(), static fn(ColumnComparison $column): bool => $column->readsEqualBytes) !== [];

        return $this->settings->triesSideBySide && $this->sourceLayout->isWhole && $this->sourceLayout->keyComesFirst && $this->plan->bridges === [] && ! $readsEqualBytes
            && $this->plan->source->repeats->isDefault() && $this->plan->target->repeats->isDefault();
    }

    private function sideBySide(): SideBySideScan
    {
        return new SideBySideScan(['source' => $this->scanOf(Side::Source), 'target' => $this->scanOf(Side::Target)], count($this->plan->key), $this->partitions, $this->settings->bufferBytes());
    }

    private function scanBoth(callable $onProgress): ScanResult
    {
        $results = $this->sideBySide()->run(['source' => "{$this->workspace}/source-0", 'target' => "{$this->workspace}/target-0"], "{$this->workspace}/".self::BOTH_SIDES, $onProgress);
        foreach ($results as $side => $result) {
            UnfinishedFile::whole("{$this->workspace}/{$side}-0.result", serialize($result));
        }

        return $results['source'];
    }

    /** @return list<string> names of the pieces that match; all of reading must be done */
    public function matchPieces(): array
    {
        return array_map(static fn(int $partition): string => "match-{$partition}", range(0, $this->partitions - ($this->plan->bridges === [] ? 1 : 0)));
    }

    /** @param callable(int, int): void $onProgress while reading: bytes of this piece, and records, so far */
    public function perform(string $piece, callable $onProgress): void
    {
        if ($this->isDone($piece)) {
            return;
        }
        [$kind, $number] = explode('-', $piece);
        $result = match ($kind) {
            'match' => $this->match((int) $number, $piece),
            'both' => $this->scanBoth($onProgress),
            default => $this->scan(Side::from($kind), (int) $number, $piece, $onProgress),
        };
        UnfinishedFile::whole("{$this->workspace}/{$piece}.result", serialize($result));
    }

    public function isDone(string $piece): bool
    {
        return is_file("{$this->workspace}/{$piece}.result");
    }

    /**
     * Reads a side whose quotes turned out to be stray from its beginning, in one piece.
     *
     * @return list<string> pieces that are still to be done
     */
    public function piecesAfterStrayQuotes(): array
    {
        $pieces = [];
        foreach (Side::cases() as $side) {
            foreach (array_keys($this->rangesOf($side)) as $number) {
                if ($this->scanResult($side, $number)->hasStrayQuotes) {
                    file_put_contents("{$this->workspace}/{$side->value}.in-one", '');
                    array_map(unlink(...), glob("{$this->workspace}/{$side->value}-*") ?: []);
                    $pieces[] = "{$side->value}-0";
                    break;
                }
            }
        }

        return $pieces;
    }

    /** @return list<ScanResult> by range */
    public function scanResults(Side $side): array
    {
        return array_map(fn(int $number): ScanResult => $this->scanResult($side, $number), array_keys($this->rangesOf($side)));
    }

    public function matchCounts(): MatchCounts
    {
        $counts = new MatchCounts(count($this->plan->columnPairs));
        foreach ($this->matchPieces() as $piece) {
            $counts->merge($this->matchResult($piece)['counts']);
        }

        return $counts;
    }

    /**
     * The findings of a side that were written aside, in its order.
     *
     * @return \Generator<int, \NineTally\Core\Matching\Spill\FindingEntry> by the lines before the entry's own
     */
    public function entries(Side $side): \Generator
    {
        $streams = [];
        foreach ($this->rangesInOrder($side) as ['path' => $path, 'baseLine' => $baseLine, 'result' => $result]) {
            if ($result->hasFindings) {
                $streams[] = ['path' => $path.'.findings', 'baseLine' => $baseLine];
            }
        }
        foreach ($this->matchPieces() as $piece) {
            if ($this->matchResult($piece)['findings'][$side->value]) {
                $streams[] = ['path' => "{$this->workspace}/{$piece}.{$side->value}", 'baseLine' => 0];
            }
        }

        return FindingSpool::merged($streams);
    }

    /** @return list<ColumnComparison> by column pair */
    public function comparisons(): array
    {
        return $this->comparisons ??= array_map(fn(ColumnPair $pair): ColumnComparison => new ColumnComparison($pair, $this->plan->source->reading($pair->source, $pair->kind), $this->plan->target->reading($pair->target, $pair->kind), $this->catalogue), $this->plan->columnPairs);
    }

    public function catalogue(): CauseCatalogue
    {
        return $this->catalogue;
    }

    private function scan(Side $side, int $number, string $piece, callable $onProgress): ScanResult
    {
        $range = $this->rangesOf($side)[$number];
        try {
            return $this->scanOf($side)->run($range, "{$this->workspace}/{$piece}", static function (int $position, int $records) use ($onProgress, $range): void {
                $onProgress($position - $range->start, $records);
            });
        } catch (StrayQuotes) {
            $result = new ScanResult;
            $result->hasStrayQuotes = true;

            return $result;
        }
    }

    /** In which rows forgiven cells stand, of all partitions; all of matching must be done. */
    public function postings(string $path): Postings
    {
        return Postings::merged(array_map(fn(string $piece): array => ['path' => "{$this->workspace}/{$piece}.postings", 'index' => $this->matchResult($piece)['postings']], $this->matchPieces()), $path);
    }

    /** What counts the values of rows that were not compared; all of reading must be done. */
    public function valueCounts(): ValueCounts
    {
        $blanks = ['source' => [], 'target' => []];
        foreach (Side::cases() as $side) {
            foreach ($this->scanResults($side) as $result) {
                foreach ($result->blanks as $pair => $cells) {
                    $blanks[$side->value][$pair] = ($blanks[$side->value][$pair] ?? 0) + $cells;
                }
            }
        }

        return new ValueCounts(
            ['source' => $this->sourceLayout->pairedPositions, 'target' => $this->targetLayout->pairedPositions],
            ['source' => $this->readings(Side::Source), 'target' => $this->readings(Side::Target)],
            $blanks,
        );
    }

    /** @return list<Reading> of the compared columns, by column pair */
    private function readings(Side $side): array
    {
        return array_map(fn(ColumnPair $pair): Reading => $this->plan->side($side)->reading($side === Side::Source ? $pair->source : $pair->target, $pair->kind), $this->plan->columnPairs);
    }

    private function scanOf(Side $side): Scan
    {
        [$reader, $layout] = $side === Side::Source ? [$this->source, $this->sourceLayout] : [$this->target, $this->targetLayout];

        return new Scan($side, $reader, $layout, $this->keyForm($side), $this->bridgedKeys(), $this->partitions, $this->settings->bufferBytes(), new BlankCells($layout->pairedPositions, $this->readings($side)));
    }

    /** @return array{counts: MatchCounts, findings: array{source: bool, target: bool}, postings: array<string, array<int, array{int, int}>>} */
    private function match(int $partition, string $piece): array
    {
        $counts = new MatchCounts(count($this->plan->columnPairs));
        $postings = new PostingBuffer;
        $match = new PartitionMatch(
            $this->sideRows(Side::Source),
            $this->sideRows(Side::Target),
            $this->readsSideBySide() ? $this->pairs ??= new SpillReader([['path' => "{$this->workspace}/".self::BOTH_SIDES, 'baseLine' => 0]]) : null,
            new RowComparison($this->comparisons(), $this->sourceLayout->comparedPositions(), $this->targetLayout->comparedPositions(), $counts, $this->movedValues(), $postings, $this->settings->listsForgiven),
            $counts,
            $this->bridges(),
            $this->hasPlainKeys() ? [] : array_map($this->keyComparison(...), $this->plan->key),
            $this->settings->largePartition(),
            $postings,
        );

        return ['findings' => $match->run($partition, $partition === $this->partitions, "{$this->workspace}/{$piece}"), 'counts' => $counts, 'postings' => $postings->write("{$this->workspace}/{$piece}.postings")];
    }

    private function movedValues(): MovedValues
    {
        return new MovedValues($this->source->columns(), $this->target->columns(), $this->sourceLayout->pairedPositions, $this->targetLayout->pairedPositions, $this->sourceLayout->keyPositions, $this->targetLayout->keyPositions);
    }

    private function sideRows(Side $side): SideRows
    {
        return new SideRows(
            $side,
            $this->spill($side),
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

    private function spill(Side $side): SpillReader
    {
        return $this->spills[$side->value] ??= new SpillReader(array_map(static fn(array $range): array => ['path' => $range['path'], 'baseLine' => $range['baseLine']], $this->rangesInOrder($side)));
    }

    /** @return list<array{path: string, baseLine: int, result: ScanResult}> */
    private function rangesInOrder(Side $side): array
    {
        $lines = 0;
        $ranges = [];
        foreach ($this->scanResults($side) as $number => $result) {
            $ranges[] = ['path' => "{$this->workspace}/{$side->value}-{$number}", 'baseLine' => $lines, 'result' => $result];
            $lines += $result->lines;
        }

        return $ranges;
    }

    /** @return list<ByteRange> */
    private function rangesOf(Side $side): array
    {
        $reader = $side === Side::Source ? $this->source : $this->target;

        // Another worker may have found stray quotes meanwhile.
        return is_file("{$this->workspace}/{$side->value}.in-one") || $this->readsSideBySide() ? [new ByteRange] : $this->ranges[$side->value] ??= $this->keptRanges($side, $reader);
    }

    /**
     * A file is looked through once to divide it, by whoever comes first.
     *
     * @return list<ByteRange>
     */
    private function keptRanges(Side $side, Reader $reader): array
    {
        $path = "{$this->workspace}/{$side->value}.ranges";
        if (! is_file($path)) {
            UnfinishedFile::whole($path, serialize($reader->ranges($this->settings->rangeBytes)));
        }
        /** @var list<ByteRange> $ranges */
        $ranges = unserialize((string) file_get_contents($path), ['allowed_classes' => [ByteRange::class]]);

        return $ranges;
    }

    private function scanResult(Side $side, int $number): ScanResult
    {
        $result = $this->result("{$side->value}-{$number}", [ScanResult::class]);

        return $result instanceof ScanResult ? $result : throw WorkspaceFailure::reading("{$side->value}-{$number}");
    }

    /** @return array{counts: MatchCounts, findings: array{source: bool, target: bool}, postings: array<string, array<int, array{int, int}>>} */
    private function matchResult(string $piece): array
    {
        /** @var array{counts: MatchCounts, findings: array{source: bool, target: bool}, postings: array<string, array<int, array{int, int}>>} $result */
        $result = $this->result($piece, [MatchCounts::class, \NineTally\Core\Matching\PairCounts::class, \NineTally\Core\Matching\ForgivenPattern::class, \NineTally\Core\Cause\ColumnEvidence::class, \Brick\Math\BigDecimal::class]);

        return $result;
    }

    /** @param list<class-string> $classes */
    private function result(string $piece, array $classes): mixed
    {
        $bytes = @file_get_contents("{$this->workspace}/{$piece}.result");

        return $bytes === false ? throw WorkspaceFailure::reading($piece) : unserialize($bytes, ['allowed_classes' => $classes]);
    }

    /** @return array{SideLayout, SideLayout} */
    private function layouts(Columns $source, Columns $target): array
    {
        $sourceKey = $source->positionsOf($this->plan->keyNames(Side::Source));
        $targetKey = $target->positionsOf($this->plan->keyNames(Side::Target));
        $sourcePaired = $source->positionsOf($this->plan->pairedNames(Side::Source));
        $targetPaired = $target->positionsOf($this->plan->pairedNames(Side::Target));
        $isWhole = $this->hasPlainKeys() && $source->count() === $target->count() && $sourceKey === $targetKey && $sourcePaired === $targetPaired
            && count(array_unique([...$sourceKey, ...$sourcePaired])) === $source->count();

        return [new SideLayout($sourceKey, $sourcePaired, $source->count(), $isWhole), new SideLayout($targetKey, $targetPaired, $target->count(), $isWhole)];
    }

    public function keyForm(Side $side): KeyForm
    {
        return $this->keyForms[$side->value] ??= $this->plan->keyForm($side, $this->catalogue->forms);
    }

    private function hasPlainKeys(): bool
    {
        return $this->keyForm(Side::Source)->isPlain && $this->keyForm(Side::Target)->isPlain;
    }

    /** @return list<array{source: string, target: string}> canonical keys */
    private function bridges(): array
    {
        [$source, $target] = [$this->keyForm(Side::Source), $this->keyForm(Side::Target)];

        return array_map(static fn(Bridge $bridge): array => ['source' => $source->canonical($bridge->source), 'target' => $target->canonical($bridge->target)], $this->plan->bridges);
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

        return array_map(fn(DecidingColumn $deciding): Decider => new Decider($this->columns($side)->positionOf($deciding->column), new ValueOrder($rules->reading($deciding->column, $deciding->kind)), $deciding->keepsHighest), $rules->repeats->deciding());
    }

    private function columns(Side $side): Columns
    {
        return ($side === Side::Source ? $this->source : $this->target)->columns();
    }
}
