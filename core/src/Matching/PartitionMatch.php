<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Matching\Spill\FindingSpool;
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
    private readonly RepeatedRows $repeated;

    private readonly SkewedKeys $skewedKeys;

    /**
     * @param  SpillReader|null  $pairs  rows that paired while both sides were read at once
     * @param  list<array{source: string, target: string}>  $bridges  canonical keys, in the order of the plan
     * @param  int  $largeBytes  from this size of a partition on, keys of very many rows are looked for before rows are held
     */
    public function __construct(
        private readonly SideRows $source,
        private readonly SideRows $target,
        private readonly ?SpillReader $pairs,
        private readonly RowOutcomes $outcomes,
        private readonly MatchCounts $counts,
        private readonly array $bridges,
        int $largeBytes,
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
        $this->outcomes->findings = ['source' => [], 'target' => []];
        $heavy = $this->skewedKeys->find($partition);
        $source = $this->source->spill->rowsWithout($partition, $heavy);
        $target = $this->target->spill->rowsWithout($partition, $heavy);
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
        $looksAtAll = $this->outcomes->looksAtAll();
        foreach ($sourceIndex as $key => $place) {
            $other = $targetIndex[$key] ?? null;
            if ($other === null) {
                continue;
            }
            if ($source->bodies[$place] === $target->bodies[$other] && ! $looksAtAll) {
                $agreed++;
            } else {
                $this->outcomes->comparePair((string) $key, $source, $place, $target, $other);
            }
        }
        $this->counts->countMet(RowClass::Agreed, $agreed);
        $missing = array_diff_key($sourceIndex, $targetIndex);
        $extra = array_diff_key($targetIndex, $sourceIndex);
        if ($isOfBridges) {
            [$missing, $extra] = $this->bridge($source, $missing, $target, $extra);
        }
        foreach ($missing as $key => $place) {
            $this->outcomes->recordUnmatched(Side::Source, (string) $key, $source, $place);
        }
        foreach ($extra as $key => $place) {
            $this->outcomes->recordUnmatched(Side::Target, (string) $key, $target, $place);
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
                    $this->outcomes->findings[$side->side->value][$rows->lines->at($place)] = $this->repeated->notKept(
                        $side,
                        $key,
                        $rows,
                        $place,
                        $nth + 1,
                        $group,
                        $kept,
                    );
                }
            }
        }
        ['source' => $keptSource, 'target' => $keptTarget] = $keptPlaces;
        if ($keptSource !== null && $keptTarget !== null) {
            $this->outcomes->comparePair(
                $key,
                $source,
                $keptSource[0],
                $target,
                $keptTarget[0],
                $keptSource[1],
                $group->rows['source'],
                $group->rows['target'],
            );
        } elseif ($keptSource !== null) {
            $this->outcomes->recordUnmatched(Side::Source, $key, $source, $keptSource[0], $keptSource[1], $group->rows['source']);
        } elseif ($keptTarget !== null) {
            $this->outcomes->recordUnmatched(
                Side::Target,
                $key,
                $target,
                $keptTarget[0],
                $keptTarget[1],
                targetRows: $group->rows['target'],
            );
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
                $this->outcomes->comparePair($key, $source, $place, $target, $targetPlaces[$nth], $nth + 1, $sourceRows, $targetRows);
            } else {
                $this->outcomes->recordUnmatched(Side::Source, $key, $source, $place, $nth + 1, $sourceRows, $targetRows);
            }
        }
        foreach (array_slice($targetPlaces, $sourceRows, null, true) as $nth => $place) {
            $this->outcomes->recordUnmatched(Side::Target, $key, $target, $place, $nth + 1, $sourceRows, $targetRows);
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
                $this->outcomes->comparePair($sourceKey, $source, $missing[$sourceKey], $target, $extra[$targetKey], isBridged: true);
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
        $this->outcomes->compareKept($groups, $this->skewedKeys->keptRows($partition, $groups));
        $written = ['source' => false, 'target' => false];
        foreach ([$this->source, $this->target] as $side) {
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
