<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** What a run has measured so far; nothing in it is a guess. */
final readonly class ProgressReport
{
    /**
     * @param  float  $done  share of the whole work, from 0 to 1; never falls
     * @param  array{source: int, target: int}  $rows  records read so far
     */
    public function __construct(
        public Phase $phase,
        public float $done,
        public array $rows,
        public int $partitionsMatched = 0,
        public int $partitions = 0,
        public int $agreed = 0,
        public int $changed = 0,
    ) {}
}
