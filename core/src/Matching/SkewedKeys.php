<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\PackedLines;
use NineTally\Core\Matching\Spill\SpilledRows;
use NineTally\Core\Repeats\PolicyId;

/**
 * Keys that stand in very many rows of a partition. Their rows stream by, three times: to be counted, to see which one the
 * policy keeps, and to be written down. Only the rows that are kept are held.
 */
final readonly class SkewedKeys
{
    /** More rows of one key than this are not held. */
    private const MANY_ROWS = 5_000;

    public function __construct(
        private SideRows $source,
        private SideRows $target,
        private RepeatedRows $repeated,
        private int $largeBytes,
    ) {}

    /** @return array<string, int> keys of very many rows => how many; none where the whole partition is small enough to be held */
    public function find(int $partition): array
    {
        // Rows that are paired in order need all the rows of their key.
        if (
            $this->source->spill->bytes($partition) + $this->target->spill->bytes($partition) <= $this->largeBytes ||
            $this->source->policy->id === PolicyId::PairInOrder
        ) {
            return [];
        }
        $heavy = [];
        foreach ([$this->source, $this->target] as $side) {
            $rows = [];
            foreach ($side->spill->stream($partition) as $chunk) {
                foreach ($chunk->keys as $key) {
                    $rows[$key] = ($rows[$key] ?? 0) + 1;
                }
            }
            $heavy += array_filter($rows, static fn(int $count): bool => $count > self::MANY_ROWS);
        }

        /** @var array<string, int> $heavy */
        return $heavy;
    }

    /**
     * @param  array<string, int>  $heavy
     * @return array<string, RepeatedKey>
     */
    public function groups(int $partition, array $heavy): array
    {
        $groups = [];
        foreach ($heavy === [] ? [] : [$this->source, $this->target] as $side) {
            foreach ($side->spill->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    if (isset($heavy[$key])) {
                        $this->repeated->see($groups[$key] ??= $this->repeated->group(), $side, $chunk, $place);
                    }
                }
            }
        }
        array_map($this->repeated->countKey(...), $groups);

        /** @var array<string, RepeatedKey> $groups */
        return $groups;
    }

    /**
     * @param  array<string, RepeatedKey>  $groups
     * @return array<string, array{source?: array{SpilledRows, int}, target?: array{SpilledRows, int}}> key
     *     => the row that each side keeps, and its ordinal
     */
    public function keptRows(int $partition, array $groups): array
    {
        $kept = array_filter(array_map(static fn(RepeatedKey $group): ?array => $group->kept(), $groups));
        /** @var array<string, array{source?: array{SpilledRows, int}, target?: array{SpilledRows, int}}> $found */
        $found = [];
        foreach ($kept === [] ? [] : [$this->source, $this->target] as $side) {
            $ordinals = [];
            foreach ($side->spill->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    if (! isset($kept[$key])) {
                        continue;
                    }
                    $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
                    $line = $chunk->lines->at($place);
                    if ($kept[$key][$side->side->value] === $line) {
                        $found[$key][$side->side->value] = [
                            new SpilledRows(
                                [$key],
                                [$chunk->bodies[$place]],
                                $chunk->rests === [] ? [] : [$chunk->rests[$place]],
                                PackedLines::ofOne($line),
                            ),
                            $ordinals[$key],
                        ];
                    }
                }
            }
        }

        return $found;
    }

    /**
     * Findings of a side in the order of their lines, with the rows of heavy keys that were not kept between them.
     *
     * @param  array<int, FindingEntry>  $findings  by line, in order
     * @param  array<string, RepeatedKey>  $groups
     * @return \Generator<int, FindingEntry>
     */
    public function among(array $findings, SideRows $side, int $partition, array $groups): \Generator
    {
        $ordinals = [];
        foreach ($groups === [] ? [] : $side->spill->stream($partition) as $chunk) {
            foreach ($chunk->keys as $place => $key) {
                if (! isset($groups[$key])) {
                    continue;
                }
                $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
                $kept = $groups[$key]->kept();
                $line = $chunk->lines->at($place);
                if ($kept !== null && $kept[$side->side->value] === $line) {
                    continue;
                }
                while ($findings !== [] && key($findings) < $line) {
                    yield current($findings);
                    unset($findings[key($findings)]);
                }
                yield $this->repeated->notKept($side, (string) $key, $chunk, $place, $ordinals[$key], $groups[$key], $kept);
            }
        }
        yield from $findings;
    }
}
