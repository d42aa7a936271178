<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\ColumnEvidence;

/** What was counted in one column pair. Counts of several pieces of work add up. */
final class PairCounts
{
    /** @var array{forgiven: int, changed: int, blanked: int, filled: int} */
    public array $cells = ['forgiven' => 0, 'changed' => 0, 'blanked' => 0, 'filled' => 0];

    /** @var array<string, ForgivenPattern> by cause and facts */
    public array $forgiven = [];

    public ColumnEvidence $evidence;

    /** @var array<string, array<string, int>> blanked or filled => where its value may have moved => cells */
    public array $movedBlanks = ['blanked' => [], 'filled' => []];

    /** Values of the source that its crosswalk does not know. */
    public int $withoutEntry = 0;

    public function __construct()
    {
        $this->evidence = new ColumnEvidence;
    }

    public function merge(self $other): void
    {
        foreach ($other->cells as $class => $cells) {
            $this->cells[$class] += $cells;
        }
        foreach ($other->forgiven as $key => $pattern) {
            ($this->forgiven[$key] ??= new ForgivenPattern($pattern->cause, $pattern->facts))->merge($pattern);
        }
        $this->evidence->merge($other->evidence);
        foreach ($other->movedBlanks as $class => $moves) {
            foreach ($moves as $move => $cells) {
                $this->movedBlanks[$class][$move] = ($this->movedBlanks[$class][$move] ?? 0) + $cells;
            }
        }
        $this->withoutEntry += $other->withoutEntry;
    }
}
