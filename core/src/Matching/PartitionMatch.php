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
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\PackedLines;
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Side;

/**
 * Brings together the rows of one partition that have the same key.
 *
 * Holds the partition's rows. A key that stands in very many rows is the exception: its rows stream by, and only what the
 * repeats policy keeps is held. Rows whose bodies are equal bytes are done with one comparison and are never taken apart.
 */
final class PartitionMatch
{
    /** @var array{source: array<int, FindingEntry>, target: array<int, FindingEntry>} by line */
    private array $findings = ['source' => [], 'target' => []];

    private readonly RepeatedRows $repeated;

    private readonly SkewedKeys $skewedKeys;

    /**
     * @param  SpillReader|null  $pairs  rows that paired while both sides were read at once
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  list<ColumnComparison>  $keyColumns  to name what the key forgives; empty where it forgives nothing
     * @param  int  $largeBytes  from this size of a partition on, keys of very many rows are looked for before rows are held
     */
    public function __construct(
        private readonly SideRows $source,
        private readonly SideRows $target,
        private readonly ?SpillReader $pairs,
        private readonly RowComparison $comparison,
        private readonly MatchCounts $counts,
        private readonly array $bridges,
        private readonly array $keyColumns,
        int $largeBytes,
        private readonly PostingBuffer $postings,
    ) {
        $this->repeated = new RepeatedRows($source, $target, $counts);
        $this->skewedKeys = new SkewedKeys($source, $target, $this->repeated, $largeBytes);
    }

    /**
     * Counts every row of the partition and writes what did not agree, in source order and in target order.
     *
     * @param  string  $path  the findings are written to "$path.source" and "$path.target"
     * @return array{source: bool, target: bool} whether there are any
     */
    public function run(int $partition, bool $isOfBridges, string $path): array
    {
        $this->findings = ['source' => [], 'target' => []];
        $heavy = $this->skewedKeys->find($partition);
        $source = $this->load($this->source->spill, $partition, $heavy);
        $target = $this->load($this->target->spill, $partition, $heavy);
        if ($this->pairs !== null) {
            [$source, $target] = $this->withPairs($this->pairs->rows($partition), $source, $target);
        }
        /** @var array<string, int> $sourceIndex key => place */
        $sourceIndex = array_flip($source->keys);
        /** @var array<string, int> $targetIndex */
        $targetIndex = array_flip($target->keys);
        if (count($sourceIndex) < count($source->keys) || count($targetIndex) < count($target->keys)) {
            $repeated = $this->repeatedKeys($source->keys, $sourceIndex) + $this->repeatedKeys($target->keys, $targetIndex);
            $this->matchRepeated($source, $target, $repeated);
            $sourceIndex = array_diff_key($sourceIndex, $repeated);
            $targetIndex = array_diff_key($targetIndex, $repeated);
        }
        $agreed = 0;
        $looksAtAll = $this->comparison->readsEqualBytes || $this->keyColumns !== [];
        foreach ($sourceIndex as $key => $place) {
            $other = $targetIndex[$key] ?? null;
            if ($other === null) {
                continue;
            }
            if ($source->bodies[$place] === $target->bodies[$other] && ! $looksAtAll) {
                $agreed++;
            } else {
                $this->comparePair((string) $key, $source, $place, $target, $other);
            }
        }
        $this->counts->countMet(RowClass::Agreed, $agreed);
        $missing = array_diff_key($sourceIndex, $targetIndex);
        $extra = array_diff_key($targetIndex, $sourceIndex);
        if ($isOfBridges) {
            [$missing, $extra] = $this->bridge($source, $missing, $target, $extra);
        }
        foreach ($missing as $key => $place) {
            $this->recordUnmatched(Side::Source, (string) $key, $source, $place);
        }
        foreach ($extra as $key => $place) {
            $this->recordUnmatched(Side::Target, (string) $key, $target, $place);
        }

        return $this->write($path, $partition, $heavy);
    }

    /**
     * Rows that paired while both sides were read agree, unless their key stands on another row too: those are matched like all others.
     *
     * @return array{SpilledRows, SpilledRows} the rows of both sides that are still to be matched, in the order of their lines
     */
    private function withPairs(SpilledRows $pairs, SpilledRows $source, SpilledRows $target): array
    {
        /** @var array<string, int> $index */
        $index = array_flip($pairs->keys);
        $contested = array_intersect_key($index, array_flip($source->keys)) + array_intersect_key($index, array_flip($target->keys));
        if (count($index) < count($pairs->keys)) {
            $contested += $this->repeatedKeys($pairs->keys, $index);
        }
        if ($contested === []) {
            $this->counts->countMet(RowClass::Agreed, count($pairs->keys));

            return [$source, $target];
        }
        $back = [];
        foreach ($pairs->keys as $place => $key) {
            if (isset($contested[$key])) {
                $back[] = $place;
            }
        }
        $this->counts->countMet(RowClass::Agreed, count($pairs->keys) - count($back));

        return [
            $source->with($pairs, $back, static fn(int $place): int => MergeScan::linesOf($pairs->lines->at($place))['source']),
            $target->with($pairs, $back, static fn(int $place): int => MergeScan::linesOf($pairs->lines->at($place))['target']),
        ];
    }

    private function comparePair(string $key, SpilledRows $source, int $place, SpilledRows $target, int $other, int $ordinal = 1, int $sourceRows = 1, int $targetRows = 1, bool $isBridged = false): void
    {
        $line = $source->lines->at($place);
        if ($this->keyColumns !== [] && ! $isBridged) {
            $this->countForgivenKey($this->source->deliveredKey($source, $place), $this->target->deliveredKey($target, $other), $line);
        }
        $cells = $this->comparison->compare($source->bodies[$place], $target->bodies[$other], $line, fn(): array => [$this->source->row($source, $place), $this->target->row($target, $other)]);
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

    private function recordUnmatched(Side $side, string $key, SpilledRows $rows, int $place, int $ordinal = 1, int $sourceRows = 0, int $targetRows = 0): void
    {
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

    /**
     * @param  array<string, int>  $repeated  keys that repeat on at least one side
     */
    private function matchRepeated(SpilledRows $source, SpilledRows $target, array $repeated): void
    {
        $places = ['source' => [], 'target' => []];
        foreach ($source->keys as $place => $key) {
            if (isset($repeated[$key])) {
                $places['source'][$key][] = $place;
            }
        }
        foreach ($target->keys as $place => $key) {
            if (isset($repeated[$key])) {
                $places['target'][$key][] = $place;
            }
        }
        foreach (array_keys($repeated) as $key) {
            $this->matchKey((string) $key, $source, $places['source'][$key] ?? [], $target, $places['target'][$key] ?? []);
        }
    }

    /**
     * @param  list<int>  $sourcePlaces
     * @param  list<int>  $targetPlaces
     */
    private function matchKey(string $key, SpilledRows $source, array $sourcePlaces, SpilledRows $target, array $targetPlaces): void
    {
        if ($this->source->policy->id === PolicyId::PairInOrder) {
            $this->pairInOrder($key, $source, $sourcePlaces, $target, $targetPlaces);

            return;
        }
        $group = $this->repeated->group();
        foreach ($sourcePlaces as $place) {
            $this->repeated->see($group, $this->source, $source, $place);
        }
        foreach ($targetPlaces as $place) {
            $this->repeated->see($group, $this->target, $target, $place);
        }
        $this->repeated->countKey($group);
        $kept = $group->kept();
        $keptPlaces = ['source' => null, 'target' => null];
        foreach ([[$this->source, $source, $sourcePlaces], [$this->target, $target, $targetPlaces]] as [$side, $rows, $places]) {
            foreach ($places as $nth => $place) {
                if ($kept !== null && $rows->lines->at($place) === $kept[$side->side->value]) {
                    $keptPlaces[$side->side->value] = [$place, $nth + 1];
                } else {
                    $this->findings[$side->side->value][$rows->lines->at($place)] = $this->repeated->dropped($side, $key, $rows, $place, $nth + 1, $group, $kept);
                }
            }
        }
        ['source' => $keptSource, 'target' => $keptTarget] = $keptPlaces;
        if ($keptSource !== null && $keptTarget !== null) {
            $this->comparePair($key, $source, $keptSource[0], $target, $keptTarget[0], $keptSource[1], $group->rows['source'], $group->rows['target']);
        } elseif ($keptSource !== null) {
            $this->recordUnmatched(Side::Source, $key, $source, $keptSource[0], $keptSource[1], $group->rows['source']);
        } elseif ($keptTarget !== null) {
            $this->recordUnmatched(Side::Target, $key, $target, $keptTarget[0], $keptTarget[1], targetRows: $group->rows['target']);
        }
    }

    /**
     * @param  list<int>  $sourcePlaces
     * @param  list<int>  $targetPlaces
     */
    private function pairInOrder(string $key, SpilledRows $source, array $sourcePlaces, SpilledRows $target, array $targetPlaces): void
    {
        [$sourceRows, $targetRows] = [count($sourcePlaces), count($targetPlaces)];
        foreach ($sourcePlaces as $nth => $place) {
            if (isset($targetPlaces[$nth])) {
                $this->comparePair($key, $source, $place, $target, $targetPlaces[$nth], $nth + 1, $sourceRows, $targetRows);
            } else {
                $this->recordUnmatched(Side::Source, $key, $source, $place, $nth + 1, $sourceRows, $targetRows);
            }
        }
        foreach (array_slice($targetPlaces, $sourceRows, null, true) as $nth => $place) {
            $this->recordUnmatched(Side::Target, $key, $target, $place, $nth + 1, $sourceRows, $targetRows);
        }
    }

    /**
     * A bridge joins two rows where neither key has a counterpart; else it is idle.
     *
     * @param  array<string, int>  $missing  key => place
     * @param  array<string, int>  $extra
     * @return array{array<string, int>, array<string, int>} what is still alone
     */
    private function bridge(SpilledRows $source, array $missing, SpilledRows $target, array $extra): array
    {
        foreach ($this->bridges as $number => ['source' => $sourceKey, 'target' => $targetKey]) {
            if (isset($missing[$sourceKey], $extra[$targetKey])) {
                $this->comparePair($sourceKey, $source, $missing[$sourceKey], $target, $extra[$targetKey], isBridged: true);
                unset($missing[$sourceKey], $extra[$targetKey]);
            } else {
                $this->counts->idleBridges[] = $number;
            }
        }

        return [$missing, $extra];
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
     * Rows that are not the last one of their key: what flipping the list of keys lost. By functions in C, for it looks at every row.
     *
     * @param  list<string>  $keys
     * @param  array<string, int>  $index  key => the last place on which it stands
     * @return array<string, int> keys that stand more than once
     */
    private function repeatedKeys(array $keys, array $index): array
    {
        /** @var array<string, int> $repeated */
        $repeated = array_flip(array_diff_key($keys, array_flip($index)));

        return $repeated;
    }

    /** @param array<string, int> $without */
    private function load(SpillReader $side, int $partition, array $without): SpilledRows
    {
        if ($without === []) {
            return $side->rows($partition);
        }
        $keys = $bodies = $rests = [];
        $lines = new PackedLines;
        foreach ($side->stream($partition) as $chunk) {
            foreach ($chunk->keys as $place => $key) {
                if (! isset($without[$key])) {
                    $keys[] = $key;
                    $bodies[] = $chunk->bodies[$place];
                    $lines->append(pack('J', $chunk->lines->at($place)), 0);
                    if ($chunk->rests !== []) {
                        $rests[] = $chunk->rests[$place];
                    }
                }
            }
        }

        return new SpilledRows($keys, $bodies, $rests, $lines);
    }

    /**
     * @param  array<string, int>  $heavy
     * @return array{source: bool, target: bool}
     */
    private function write(string $path, int $partition, array $heavy): array
    {
        $groups = $this->skewedKeys->groups($partition, $heavy);
        $this->compareSkewed($groups, $this->skewedKeys->keptRows($partition, $groups));
        $written = ['source' => false, 'target' => false];
        foreach ([$this->source, $this->target] as $side) {
            $name = $side->side->value;
            ksort($this->findings[$name]);
            $spool = new FindingSpool("{$path}.{$name}");
            foreach ($this->skewedKeys->among($this->findings[$name], $side, $partition, $groups) as $entry) {
                $spool->add($entry);
            }
            $this->findings[$name] = [];
            $written[$name] = $spool->finish();
        }

        return $written;
    }

    /**
     * @param  array<string, RepeatedKey>  $groups
     * @param  array<string, array{source?: array{SpilledRows, int}, target?: array{SpilledRows, int}}>  $kept
     */
    private function compareSkewed(array $groups, array $kept): void
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
