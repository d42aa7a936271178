<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Matching\Spill\SpilledRow;
use NineTally\Core\Repeats\PolicyId;
use NineTally\Core\Row\Sides;

/**
 * Keys that stand in very many rows of a partition. Their rows stream by, three times: to be counted, to see which one the
 * policy keeps, and to be written down. Only the rows that are kept are held.
 */
final readonly class SkewedKeys
{
    /** More rows of one key than this are not held. */
    private const MANY_ROWS = 5_000;

    /** @param Sides<SideRows> $sides */
    public function __construct(private Sides $sides, private RepeatedRows $repeated, private int $largeBytes) {}

    /** @return array<string, int> keys of very many rows => how many; none where the whole partition is small enough to be held */
    public function find(int $partition): array
    {
        // Rows that are paired in order need all the rows of their key.
        if (
            $this->sides->source->spill->bytes($partition) + $this->sides->target->spill->bytes($partition) <= $this->largeBytes ||
            $this->sides->source->repeats->policy === PolicyId::PairInOrder
        ) {
            return [];
        }
        $heavy = [];
        foreach ($this->sides->both() as $side) {
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
        foreach ($heavy === [] ? [] : $this->sides->both() as $side) {
            foreach ($side->spill->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    if (isset($heavy[$key])) {
                        $this->repeated->see($groups[$key] ??= $this->repeated->group((string) $key), $side, $chunk->row($place));
                    }
                }
            }
        }
        foreach ($groups as $key => $group) {
            $this->repeated->countKey($group, (string) $key);
        }

        /** @var array<string, RepeatedKey> $groups */
        return $groups;
    }

    /**
     * @param  array<string, RepeatedKey>  $groups
     * @return array<string, array{source?: array{SpilledRow, int}, target?: array{SpilledRow, int}}> key
     *     => the row that each side keeps, and its ordinal
     */
    public function keptRows(int $partition, array $groups): array
    {
        $kept = array_filter(array_map(static fn(RepeatedKey $group): ?array => $group->kept(), $groups));
        /** @var array<string, array{source?: array{SpilledRow, int}, target?: array{SpilledRow, int}}> $found */
        $found = [];
        foreach ($kept === [] ? [] : $this->sides->both() as $side) {
            $ordinals = [];
            foreach ($side->spill->stream($partition) as $chunk) {
                foreach ($chunk->keys as $place => $key) {
                    if (! isset($kept[$key])) {
                        continue;
                    }
                    $ordinals[$key] = ($ordinals[$key] ?? 0) + 1;
                    if ($kept[$key][$side->side->value] === $chunk->lines->at($place)) {
                        $found[$key][$side->side->value] = [$chunk->row($place), $ordinals[$key]];
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
                $row = $chunk->row($place);
                if ($kept !== null && $kept[$side->side->value] === $row->line) {
                    continue;
                }
                while ($findings !== [] && key($findings) < $row->line) {
                    yield current($findings);
                    unset($findings[key($findings)]);
                }
                yield $this->repeated->notKept($side, $row, $ordinals[$key], $groups[$key], $kept);
            }
        }
        yield from $findings;
    }
}
