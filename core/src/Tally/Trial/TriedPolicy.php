<?php

declare(strict_types=1);

namespace NineTally\Core\Tally\Trial;

use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\SideCounts;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Totals\ExactSum;

/** What a policy would do with the rows whose key repeats, as a tally of these rows alone has found it. */
final readonly class TriedPolicy
{
    /**
     * @param  Sides<ExactSum>  $leftOut  what the rows that are not compared add up to, in the column that is asked about
     * @param  array<string, int>  $kept  by {@see PolicyTrial::group()}: packed place of the row that is kept, 0 where all are set aside.
     *     Keys of which every row is compared are not among them
     * @param  array<array-key, true>  $changed  canonical keys of pairs of rows that differ
     * @param  int  $asChosen  of the choices that people made, those that the policy would have made too
     */
    public function __construct(
        public Summary $summary,
        public Sides $leftOut,
        public array $kept,
        public array $changed,
        public int $asChosen,
    ) {}

    /** @return list<string> groups in which another row is kept than with the other policy, in the order of the keys */
    public function differsFrom(self $other): array
    {
        $differing = [];
        foreach ($this->kept + $other->kept as $group => $_) {
            if (($this->kept[$group] ?? null) !== ($other->kept[$group] ?? null)) {
                $differing[] = (string) $group;
            }
        }

        return $differing;
    }

    /** Whether a pair of rows with this key differs under one of the two and agrees, or does not meet, under the other. */
    public function judgesOtherwise(self $other, string $key): bool
    {
        return isset($this->changed[$key]) !== isset($other->changed[$key]);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $side = fn(SideCounts $counts): array => [
            'rows' => $counts->prepared,
            'compared' => $counts->prepared - $counts->repeated,
            ...$counts->repeats(),
            'unmatched' => $counts->unmatched,
            'undecided' => $this->summary->key->undecided[$counts->side->value] ?? 0,
        ];

        return [
            'agreed' => $this->summary->source->agreed,
            'changed' => $this->summary->source->changed,
            'source' => $side($this->summary->source),
            'target' => $side($this->summary->target),
            'leftOut' => $this->leftOut->map(static fn(ExactSum $sum): string => (string) $sum->total())->named(),
            'asChosen' => $this->asChosen,
            'cells' => array_sum(array_map(static fn(Pattern $pattern): int => $pattern->cells, $this->summary->findingPatterns())),
        ];
    }
}
