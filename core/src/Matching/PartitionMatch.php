<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Reading;

/**
 * Brings together the rows of one partition that have the same key.
 *
 * Holds the partition's rows. A key that stands in very many rows is the exception: its rows stream by, and only what the
 * repeats policy keeps is held. Rows whose bodies are equal bytes are done with one comparison and are never taken apart.
 */
final class PartitionMatch
{
    /** From this many bytes on, keys that stand in very many rows are looked for before rows are held. */
    private const LARGE_BYTES = 48 * 1024 * 1024;

    /** More rows of one key than this are not held. */
    private const MANY_ROWS = 5_000;

    /** @var array<int, FindingEntry> by line */
    private array $sourceFindings = [];

    /** @var array<int, FindingEntry> */
    private array $targetFindings = [];

    /**
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  list<ColumnComparison>  $keyColumns  to name what the key forgives
     */
    public function __construct(
        private readonly SpillReader $source,
        private readonly SpillReader $target,
        private readonly ?SpillReader $pairs,
        private readonly SideLayout $sourceLayout,
        private readonly SideLayout $targetLayout,
        private readonly RowComparison $comparison,
        private readonly MatchCounts $counts,
        private readonly RepeatsPolicy $sourcePolicy,
        private readonly RepeatsPolicy $targetPolicy,
        private readonly ?int $sourceDecidingColumn,
        private readonly ?int $targetDecidingColumn,
        private readonly ?Reading $sourceDecidingReading,
        private readonly ?Reading $targetDecidingReading,
        private readonly array $bridges,
        private readonly array $keyColumns,
        private readonly bool $hasPlainKeys,
        private readonly int $largeBytes = self::LARGE_BYTES,
    ) {}

    /**
     * Counts every row of the partition and writes what did not agree, in source order and in target order.
     *
     * @param  string  $path  the findings are written to "$path.source" and "$path.target"
     * @return array{source: bool, target: bool} whether there are any
     */
    public function run(int $partition, bool $isOfBridges, string $path): array
    {
        $this->sourceFindings = $this->targetFindings = [];
        $heavy = $this->source->bytes($partition) + $this->target->bytes($partition) > $this->largeBytes ? $this->heavyKeys($partition) : [];
        $source = $this->load($this->source, $partition, $heavy);
        $target = $this->load($this->target, $partition, $heavy);
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
        $looksAtAll = $this->comparison->readsEqualBytes || ! $this->hasPlainKeys;
        foreach ($sourceIndex as $key => $place) {
            $other = $targetIndex[$key] ?? null;
            if ($other === null) {
                continue;
            }
            if ($source->bodies[$place] === $target->bodies[$other] && ! $looksAtAll) {
                $agreed++;
            } else {
                $this->meet((string) $key, $source, $place, $target, $other);
            }
        }
        $this->counts->countMet(RowClass::Agreed, $agreed);
        $missing = array_diff_key($sourceIndex, $targetIndex);
        $extra = array_diff_key($targetIndex, $sourceIndex);
        if ($isOfBridges) {
            [$missing, $extra] = $this->bridge($source, $missing, $target, $extra);
        }
        foreach ($missing as $key => $place) {
            $this->alone(Side::Source, (string) $key, $source, $place);
        }
        foreach ($extra as $key => $place) {
            $this->alone(Side::Target, (string) $key, $target, $place);
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
            $source->with($pairs, $back, static fn(int $place): int => SideBySideScan::linesOf($pairs->lines->at($place))['source']),
            $target->with($pairs, $back, static fn(int $place): int => SideBySideScan::linesOf($pairs->lines->at($place))['target']),
        ];
    }

    private function meet(string $key, SpilledRows $source, int $place, SpilledRows $target, int $other, int $ordinal = 1, int $sourceRows = 1, int $targetRows = 1, bool $isBridged = false): void
    {
        $line = $source->lines->at($place);
        if (! $this->hasPlainKeys && ! $isBridged) {
            $this->countForgivenKey($this->deliveredKey($source, $place, $this->sourceLayout), $this->deliveredKey($target, $other, $this->targetLayout));
        }
        $cells = $this->comparison->compare($source->bodies[$place], $target->bodies[$other], $line);
        $differs = array_filter($cells, static fn(array $cell): bool => $cell[1] !== CellClass::Forgiven->value) !== [];
        $this->counts->countMet($differs ? RowClass::Changed : RowClass::Agreed);
        $this->counts->bridged += $isBridged ? 1 : 0;
        if ($cells !== []) {
            $this->sourceFindings[$line] = new FindingEntry(
                $line,
                $differs ? RowClass::Changed : RowClass::Agreed,
                null,
                $key,
                $ordinal,
                $this->row($source, $place, $this->sourceLayout),
                $this->row($target, $other, $this->targetLayout),
                $target->lines->at($other),
                $sourceRows,
                $targetRows,
                cells: $cells,
                isBridged: $isBridged,
            );
        }
    }

    private function alone(Side $side, string $key, SpilledRows $rows, int $place, int $ordinal = 1, int $sourceRows = 0, int $targetRows = 0): void
    {
        $isSource = $side === Side::Source;
        $reason = match (true) {
            ($isSource ? $targetRows : $sourceRows) > 0 => MissingReason::FewerRows->value,
            $this->isInIdleBridge($side, $key) => MissingReason::IdleBridge->value,
            default => '',
        };
        $this->counts->count($side, $isSource ? RowClass::Missing : RowClass::Extra);
        $this->set($side, new FindingEntry(
            $rows->lines->at($place),
            $isSource ? RowClass::Missing : RowClass::Extra,
            $side,
            $key,
            $ordinal,
            $isSource ? $this->row($rows, $place, $this->sourceLayout) : null,
            $isSource ? null : $this->row($rows, $place, $this->targetLayout),
            sourceRows: $isSource ? max(1, $sourceRows) : $sourceRows,
            targetRows: $isSource ? $targetRows : max(1, $targetRows),
            reason: $reason,
        ));
    }

    private function set(Side $side, FindingEntry $entry): void
    {
        if ($side === Side::Source) {
            $this->sourceFindings[$entry->line] = $entry;
        } else {
            $this->targetFindings[$entry->line] = $entry;
        }
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
        if ($this->sourcePolicy->id === PolicyId::PairInOrder) {
            $this->pairInOrder($key, $source, $sourcePlaces, $target, $targetPlaces);

            return;
        }
        $group = $this->group();
        foreach ($sourcePlaces as $place) {
            $this->see($group, Side::Source, $source, $place);
        }
        foreach ($targetPlaces as $place) {
            $this->see($group, Side::Target, $target, $place);
        }
        $this->countGroup($group);
        $kept = $group->kept();
        $keptPlaces = ['source' => null, 'target' => null];
        foreach ([[Side::Source, $source, $sourcePlaces], [Side::Target, $target, $targetPlaces]] as [$side, $rows, $places]) {
            foreach ($places as $nth => $place) {
                if ($kept !== null && $rows->lines->at($place) === $kept[$side->value]) {
                    $keptPlaces[$side->value] = [$place, $nth + 1];
                } else {
                    $this->repeated($side, $key, $rows, $place, $nth + 1, $group, $kept);
                }
            }
        }
        ['source' => $keptSource, 'target' => $keptTarget] = $keptPlaces;
        if ($keptSource !== null && $keptTarget !== null) {
            $this->meet($key, $source, $keptSource[0], $target, $keptTarget[0], $keptSource[1], $group->rows['source'], $group->rows['target']);
        } elseif ($keptSource !== null) {
            $this->alone(Side::Source, $key, $source, $keptSource[0], $keptSource[1], $group->rows['source']);
        } elseif ($keptTarget !== null) {
            $this->alone(Side::Target, $key, $target, $keptTarget[0], $keptTarget[1], targetRows: $group->rows['target']);
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
                $this->meet($key, $source, $place, $target, $targetPlaces[$nth], $nth + 1, $sourceRows, $targetRows);
            } else {
                $this->alone(Side::Source, $key, $source, $place, $nth + 1, $sourceRows, $targetRows);
            }
        }
        foreach (array_slice($targetPlaces, $sourceRows, null, true) as $nth => $place) {
            $this->alone(Side::Target, $key, $target, $place, $nth + 1, $sourceRows, $targetRows);
        }
    }

    private function group(): RepeatedKey
    {
        return new RepeatedKey(new KeptRow($this->sourcePolicy, $this->sourceDecidingReading), new KeptRow($this->targetPolicy, $this->targetDecidingReading));
    }

    private function see(RepeatedKey $group, Side $side, SpilledRows $rows, int $place): void
    {
        [$layout, $deciding] = $side === Side::Source ? [$this->sourceLayout, $this->sourceDecidingColumn] : [$this->targetLayout, $this->targetDecidingColumn];
        $row = $this->row($rows, $place, $layout);
        $group->see($side->value, $rows->lines->at($place), $row, $deciding === null ? '' : explode(Batch::CELL_END, $row)[$deciding], $this->hasPlainKeys ? '' : $this->deliveredKey($rows, $place, $layout));
    }

    private function countGroup(RepeatedKey $group): void
    {
        foreach (Side::cases() as $side) {
            if ($group->rows[$side->value] > 1) {
                $this->counts->countRepeatedKey($side, $group->rows[$side->other()->value] === 0, $group->repeatsByForgiving($side->value));
            }
        }
    }

    /** @param array{source: int, target: int}|null $kept */
    private function repeated(Side $side, string $key, SpilledRows $rows, int $place, int $ordinal, RepeatedKey $group, ?array $kept): void
    {
        $this->counts->count($side, RowClass::Repeated);
        $this->set($side, $this->repeatedEntry($side, $key, $rows, $place, $ordinal, $group, $kept));
    }

    /** @param array{source: int, target: int}|null $kept */
    private function repeatedEntry(Side $side, string $key, SpilledRows $rows, int $place, int $ordinal, RepeatedKey $group, ?array $kept): FindingEntry
    {
        $isSource = $side === Side::Source;

        return new FindingEntry(
            $rows->lines->at($place),
            RowClass::Repeated,
            $side,
            $key,
            $ordinal,
            $isSource ? $this->row($rows, $place, $this->sourceLayout) : null,
            $isSource ? null : $this->row($rows, $place, $this->targetLayout),
            sourceRows: $group->rows['source'],
            targetRows: $group->rows['target'],
            keptLine: $kept === null ? null : $kept[$side->value],
        );
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
                $this->meet($sourceKey, $source, $missing[$sourceKey], $target, $extra[$targetKey], isBridged: true);
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

    private function countForgivenKey(string $source, string $target): void
    {
        if ($source === $target) {
            return;
        }
        $targetCells = explode(Batch::CELL_END, $target);
        foreach (explode(Batch::CELL_END, $source) as $column => $cell) {
            if ($cell !== $targetCells[$column]) {
                $cause = (string) $this->keyColumns[$column]->judge($cell, $targetCells[$column])->cause?->id;
                $this->counts->keyForgiven[$column][$cause] = ($this->counts->keyForgiven[$column][$cause] ?? 0) + 1;
            }
        }
    }

    /** The key cells as they came. Only asked for where the key forgives: then rows are never kept whole, and the rest begins with them. */
    private function deliveredKey(SpilledRows $rows, int $place, SideLayout $layout): string
    {
        return implode(Batch::CELL_END, array_slice(explode(Batch::CELL_END, $rows->rests[$place], count($layout->keyPositions) + 1), 0, count($layout->keyPositions)));
    }

    private function row(SpilledRows $rows, int $place, SideLayout $layout): string
    {
        return $layout->row($rows->bodies[$place], $rows->rests[$place] ?? $rows->keys[$place]);
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

    /** @return array<string, int> keys of very many rows */
    private function heavyKeys(int $partition): array
    {
        $heavy = [];
        foreach ([$this->source, $this->target] as $side) {
            $rows = [];
            foreach ($side->stream($partition) as $chunk) {
                foreach ($chunk->keys as $key) {
                    $rows[$key] = ($rows[$key] ?? 0) + 1;
                }
            }
            $heavy += array_filter($rows, static fn(int $count): bool => $count > self::MANY_ROWS);
        }

        /** @var array<string, int> $heavy */
        return $this->sourcePolicy->id === PolicyId::PairInOrder ? [] : $heavy;
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
        $groups = $this->heavyGroups($partition, $heavy);
        $written = ['source' => false, 'target' => false];
        foreach ([Side::Source, Side::Target] as $side) {
            $spool = new FindingSpool("{$path}.{$side->value}");
            if ($side === Side::Source) {
                ksort($this->sourceFindings);
                $findings = $this->sourceFindings;
                $this->sourceFindings = [];
            } else {
                ksort($this->targetFindings);
                $findings = $this->targetFindings;
                $this->targetFindings = [];
            }
            foreach ($this->withHeavy($findings, $side, $partition, $groups) as $entry) {
                $spool->add($entry);
            }
            $written[$side->value] = $spool->finish();
        }

        return $written;
    }

    /**
     * What is kept of keys that stand in very many rows, found while the rows stream by.
     *
     * @param  array<string, int>  $heavy
     * @return array<string, RepeatedKey>
     */
    private function heavyGroups(int $partition, array $heavy): array
    {
        $groups = [];
        foreach ($heavy === [] ? [] : [[Side::Source, $this->source], [Side::Target, $this->target]] as [$side, $reader]) {
            foreach ($reader->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    if (isset($heavy[$key])) {
                        $groups[$key] ??= $this->group();
                        $this->see($groups[$key], $side, $chunk, $place);
                    }
                }
            }
        }
        $keptRows = [];
        foreach ($groups as $key => $group) {
            $this->countGroup($group);
            $kept = $group->kept();
            if ($kept !== null) {
                $keptRows[$key] = $kept;
            }
        }
        $this->meetHeavy($partition, $groups, $keptRows);

        /** @var array<string, RepeatedKey> $groups */
        return $groups;
    }

    /**
     * @param  array<string, RepeatedKey>  $groups
     * @param  array<string, array{source: int, target: int}>  $kept
     */
    private function meetHeavy(int $partition, array $groups, array $kept): void
    {
        $found = ['source' => [], 'target' => []];
        foreach ($kept === [] ? [] : [[Side::Source, $this->source], [Side::Target, $this->target]] as [$side, $reader]) {
            $ordinals = [];
            foreach ($reader->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
                    if (isset($kept[$key]) && $kept[$key][$side->value] === $chunk->lines->at($place)) {
                        $found[$side->value][$key] = [new SpilledRows([$key], [$chunk->bodies[$place]], $chunk->rests === [] ? [] : [$chunk->rests[$place]], PackedLines::ofOne($chunk->lines->at($place))), $ordinals[$key]];
                    }
                }
            }
        }
        foreach (array_keys($kept) as $key) {
            [$source, $sourceOrdinal] = $found['source'][$key] ?? [null, 1];
            [$target, $targetOrdinal] = $found['target'][$key] ?? [null, 1];
            $rows = $groups[$key]->rows;
            if ($source !== null && $target !== null) {
                $this->meet((string) $key, $source, 0, $target, 0, $sourceOrdinal, $rows['source'], $rows['target']);
            } elseif ($source !== null) {
                $this->alone(Side::Source, (string) $key, $source, 0, $sourceOrdinal, $rows['source']);
            } elseif ($target !== null) {
                $this->alone(Side::Target, (string) $key, $target, 0, $targetOrdinal, targetRows: $rows['target']);
            }
        }
    }

    /**
     * Findings in the order of their lines, with the repeated rows of heavy keys between them.
     *
     * @param  array<int, FindingEntry>  $findings  by line, in order
     * @param  array<string, RepeatedKey>  $groups
     * @return \Generator<int, FindingEntry>
     */
    private function withHeavy(array $findings, Side $side, int $partition, array $groups): \Generator
    {
        if ($groups === []) {
            yield from $findings;

            return;
        }
        $ordinals = [];
        foreach (($side === Side::Source ? $this->source : $this->target)->stream($partition) as $chunk) {
            foreach ($chunk->keys as $place => $key) {
                if (! isset($groups[$key])) {
                    continue;
                }
                $ordinal = $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
                $kept = $groups[$key]->kept();
                if ($kept !== null && $kept[$side->value] === $chunk->lines->at($place)) {
                    continue;
                }
                while ($findings !== [] && key($findings) < $chunk->lines->at($place)) {
                    yield current($findings);
                    unset($findings[key($findings)]);
                }
                $this->counts->count($side, RowClass::Repeated);
                yield $this->repeatedEntry($side, (string) $key, $chunk, $place, $ordinal, $groups[$key], $kept);
            }
        }
        yield from $findings;
    }
}
