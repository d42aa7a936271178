<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Cause\PatternRules\Offset;

/**
 * What the undecided cells of one column pair are evidence for, counted. Counts of several workers add up.
 *
 * Holds a count for each distinct piece of evidence, up to a limit for each cause: a column with more distinct values than that
 * follows no rule.
 */
final class ColumnEvidence
{
    private const MOST = ['truncated' => 20_000, 'offset' => 20_000, 'date-shift' => 20_000, 'translated' => 5_000, 'moved' => 5_000];

    /** @var array<string, array<string, int>|null> cause id => evidence => cells; null: too many to follow a rule */
    private array $counts = [];

    private int $cells = 0;

    /** @param array<string, list<string>> $evidence by cause id */
    public function add(array $evidence): void
    {
        $this->cells++;
        foreach ($evidence as $cause => $pieces) {
            foreach ($pieces as $piece) {
                $this->count($cause, $piece, 1);
            }
        }
    }

    /** A cell of another value whose cause is known already: a rule of the column must hold for most of all. */
    public function addExplained(): void
    {
        $this->cells++;
    }

    public function merge(self $other): void
    {
        $this->cells += $other->cells;
        foreach ($other->counts as $cause => $counts) {
            if ($counts === null) {
                $this->counts[$cause] = null;
            }
            foreach ($counts ?? [] as $piece => $cells) {
                $this->count($cause, (string) $piece, $cells);
            }
        }
    }

    public function decide(CauseCatalogue $catalogue): ColumnDecision
    {
        $holds = [];
        foreach ($catalogue->patternRules as $id => $rule) {
            $counts = $this->counts[$id] ?? null;
            $found = $counts === null ? [] : $rule->decide($counts, $this->cells);
            if ($found !== []) {
                $holds[$id] = $found;
            }
        }

        return new ColumnDecision((new Codes($catalogue->forms))->settled($holds, $this->counts[CauseId::Translated->value] ?? []));
    }

    private function count(string $cause, string $piece, int $cells): void
    {
        if (array_key_exists($cause, $this->counts) && $this->counts[$cause] === null) {
            return;
        }
        $counts = &$this->counts[$cause];
        $counts[$piece] = ($counts[$piece] ?? 0) + $cells;
        if (count($counts) > self::MOST[$cause]) {
            // What is condensed decides the same, and how many pieces it has does not depend on the order in which they came.
            $counts = $cause === CauseId::Offset->value ? Offset::condensed($counts) : $counts;
            $counts = count($counts) > self::MOST[$cause] ? null : $counts;
        }
    }
}
