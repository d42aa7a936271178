<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Matching\Spill\FindingSpool;
use NineTally\Core\Matching\Spill\SpilledRow;
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Matching\Spill\SpillReader;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/**
 * Brings together the rows of one partition that have the same key.
 *
 * Holds the partition's rows. A key that stands in very many rows is the exception: its rows stream by, and only what the
 * repeats policy keeps is held. Rows whose bodies are equal bytes are done with one comparison and are never taken apart.
 */
final class PartitionMatch
{
    private readonly RepeatedRows $repeated;

    private readonly SkewedKeys $skewedKeys;

    /**
     * @param  Sides<SideRows>  $sides
     * @param  SpillReader|null  $pairs  rows that paired while both sides were read at once
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  int  $largeBytes  from this size of a partition on, keys of very many rows are looked for before rows are held
     */
    public function __construct(
        private readonly Sides $sides,
        private readonly ?SpillReader $pairs,
        private readonly RowOutcomes $outcomes,
        private readonly MatchCounts $counts,
        private readonly array $bridges,
        int $largeBytes,
    ) {
        $this->repeated = new RepeatedRows($sides, $counts);
        $this->skewedKeys = new SkewedKeys($sides, $this->repeated, $largeBytes);
    }

    /**
     * Counts every row of the partition and writes what did not agree, in source order and in target order.
     *
     * @param  string  $path  the findings are written to "$path.source" and "$path.target"
     * @return array{source: bool, target: bool} whether there are any
     */
    public function run(int $partition, bool $isOfBridges, string $path): array
    {
        $this->outcomes->findings = ['source' => [], 'target' => []];
        $heavy = $this->skewedKeys->find($partition);
        $rows = $this->sides->map(static fn(SideRows $side): SpilledRows => $side->spill->rowsWithout($partition, $heavy));
        if ($this->pairs !== null) {
            $rows = $this->withPairs($this->pairs->rows($partition), $rows);
        }
        [$source, $target] = $rows->both();
        /** @var array<string, int> $sourceIndex key => place */
        $sourceIndex = array_flip($source->keys);
        /** @var array<string, int> $targetIndex */
        $targetIndex = array_flip($target->keys);
        if (count($sourceIndex) < count($source->keys) || count($targetIndex) < count($target->keys)) {
            $repeated = $this->repeatedKeys($source->keys, $sourceIndex) + $this->repeatedKeys($target->keys, $targetIndex);
            $this->matchRepeated($rows, $repeated);
            $sourceIndex = array_diff_key($sourceIndex, $repeated);
            $targetIndex = array_diff_key($targetIndex, $repeated);
        }
        $agreed = 0;
        $differing = [];
        $looksAtAll = $this->outcomes->looksAtAll();
        foreach ($sourceIndex as $key => $place) {
            $other = $targetIndex[$key] ?? null;
            if ($other === null) {
                continue;
            }
            if ($source->bodies[$place] === $target->bodies[$other] && ! $looksAtAll) {
                $agreed++;
            } else {
                $differing[$place] = $other;
            }
        }
        $this->counts->countMet(RowClass::Agreed, $agreed);
        $this->outcomes->compareDiffering($source, $target, $differing);
        $missing = array_diff_key($sourceIndex, $targetIndex);
        $extra = array_diff_key($targetIndex, $sourceIndex);
        if ($isOfBridges) {
            [$missing, $extra] = $this->bridge($rows, $missing, $extra);
        }
        foreach ($missing as $place) {
            $this->outcomes->recordUnmatched(Side::Source, $source->row($place));
        }
        foreach ($extra as $place) {
            $this->outcomes->recordUnmatched(Side::Target, $target->row($place));
        }

        return $this->write($path, $partition, $heavy);
    }

    /**
     * Rows that paired while both sides were read agree, unless their key stands on another row too: those are matched like all others.
     *
     * @param  Sides<SpilledRows>  $rows
     * @return Sides<SpilledRows> those that are still to be matched, in the order of their lines
     */
    private function withPairs(SpilledRows $pairs, Sides $rows): Sides
    {
        /** @var array<string, int> $index */
        $index = array_flip($pairs->keys);
        $contested = array_intersect_key($index, array_flip($rows->source->keys) + array_flip($rows->target->keys));
        if (count($index) < count($pairs->keys)) {
            $contested += $this->repeatedKeys($pairs->keys, $index);
        }
        if ($contested === []) {
            $this->counts->countMet(RowClass::Agreed, count($pairs->keys));

            return $rows;
        }
        $back = [];
        foreach ($pairs->keys as $place => $key) {
            if (isset($contested[$key])) {
                $back[] = $place;
            }
        }
        $this->counts->countMet(RowClass::Agreed, count($pairs->keys) - count($back));

        return Sides::each(
            static fn(Side $side): SpilledRows => $rows
                ->of($side)
                ->with($pairs, $back, static fn(int $place): int => MergeScan::linesOf($pairs->lines->at($place))[$side->value]),
        );
    }

    /**
     * @param  Sides<SpilledRows>  $rows
     * @param  array<string, int>  $repeated  keys that repeat on at least one side
     */
    private function matchRepeated(Sides $rows, array $repeated): void
    {
        /** @var array<string, array{source?: list<int>, target?: list<int>}> $places */
        $places = [];
        foreach ($rows->named() as $side => $rowsOfSide) {
            foreach ($rowsOfSide->keys as $place => $key) {
                if (isset($repeated[$key])) {
                    $places[$key][$side][] = $place;
                }
            }
        }
        foreach (array_keys($repeated) as $key) {
            $ofBoth = Sides::each(
                static fn(Side $side): array => array_map($rows->of($side)->row(...), $places[$key][$side->value] ?? []),
            );
            if ($this->sides->source->repeats->policy === PolicyId::PairInOrder && ! $this->hasChoice((string) $key)) {
                $this->pairInOrder($ofBoth);
            } else {
                $this->matchKey((string) $key, $ofBoth);
            }
        }
    }

    private function hasChoice(string $key): bool
    {
        return $this->sides->source->repeats->hasChoice($key) || $this->sides->target->repeats->hasChoice($key);
    }

    /** @param Sides<list<SpilledRow>> $rows of one key */
    private function matchKey(string $key, Sides $rows): void
    {
        $group = $this->repeated->group($key);
        foreach ($this->sides->both() as $side) {
            foreach ($rows->of($side->side) as $row) {
                $this->repeated->see($group, $side, $row);
            }
        }
        $this->repeated->countKey($group, $key);
        $kept = $group->kept();
        $keptRows = [];
        foreach ($this->sides->both() as $side) {
            $name = $side->side->value;
            foreach ($rows->of($side->side) as $nth => $row) {
                if ($kept !== null && $row->line === $kept[$name]) {
                    $keptRows[$name] = [$row, $nth + 1];
                } else {
                    $this->outcomes->findings[$name][$row->line] = $this->repeated->notKept($side, $row, $nth + 1, $group, $kept);
                }
            }
        }
        $this->outcomes->compareKept($group, $keptRows);
    }

    /** @param Sides<list<SpilledRow>> $rows of one key */
    private function pairInOrder(Sides $rows): void
    {
        [$sourceRows, $targetRows] = [count($rows->source), count($rows->target)];
        foreach ($rows->source as $nth => $row) {
            if (isset($rows->target[$nth])) {
                $this->outcomes->comparePair($row, $rows->target[$nth], $nth + 1, $sourceRows, $targetRows);
            } else {
                $this->outcomes->recordUnmatched(Side::Source, $row, $nth + 1, $sourceRows, $targetRows);
            }
        }
        foreach (array_slice($rows->target, $sourceRows, null, true) as $nth => $row) {
            $this->outcomes->recordUnmatched(Side::Target, $row, $nth + 1, $sourceRows, $targetRows);
        }
    }

    /**
     * A bridge joins two rows where neither key has a counterpart; else it is idle.
     *
     * @param  Sides<SpilledRows>  $rows
     * @param  array<string, int>  $missing  key => place
     * @param  array<string, int>  $extra
     * @return array{array<string, int>, array<string, int>} what is still alone
     */
    private function bridge(Sides $rows, array $missing, array $extra): array
    {
        foreach ($this->bridges as $number => ['source' => $sourceKey, 'target' => $targetKey]) {
            if (isset($missing[$sourceKey], $extra[$targetKey])) {
                $this->outcomes->comparePair(
                    $rows->source->row($missing[$sourceKey]),
                    $rows->target->row($extra[$targetKey]),
                    isBridged: true,
                );
                unset($missing[$sourceKey], $extra[$targetKey]);
            } else {
                $this->counts->idleBridges[] = $number;
            }
        }

        return [$missing, $extra];
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

    /**
     * @param  array<string, int>  $heavy
     * @return array{source: bool, target: bool}
     */
    private function write(string $path, int $partition, array $heavy): array
    {
        $groups = $this->skewedKeys->groups($partition, $heavy);
        foreach ($this->skewedKeys->keptRows($partition, $groups) as $key => $kept) {
            $this->outcomes->compareKept($groups[$key], $kept);
        }
        $written = ['source' => false, 'target' => false];
        foreach ($this->sides->both() as $side) {
            $name = $side->side->value;
            ksort($this->outcomes->findings[$name]);
            $spool = new FindingSpool("{$path}.{$name}");
            foreach ($this->skewedKeys->among($this->outcomes->findings[$name], $side, $partition, $groups) as $entry) {
                $spool->add($entry);
            }
            $this->outcomes->findings[$name] = [];
            $written[$name] = $spool->finish();
        }

        return $written;
    }
}
