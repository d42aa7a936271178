<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Comparison\CellPair;

/** Finds the fewest causes of form that explain a difference together; among equally many, the first in the order of the catalogue. */
final readonly class FormCombination
{
    /** @var list<non-empty-list<FormRule>> every combination, smaller ones first */
    private array $combinations;

    /** @param list<FormRule> $forms in the order of the catalogue */
    public function __construct(array $forms)
    {
        // Grown form by form and sorted by size alone (the sort is stable), they keep the order of the catalogue.
        $combinations = [];
        foreach (array_reverse($forms) as $form) {
            $combinations = [[$form], ...array_map(static fn(array $combination): array => [$form, ...$combination], $combinations), ...$combinations];
        }
        usort($combinations, static fn(array $a, array $b): int => count($a) <=> count($b));
        $this->combinations = $combinations;
    }

    public function explain(CellPair $pair): ?Cause
    {
        foreach ($this->combinations as $combination) {
            if ($this->canonical($combination, $pair->source) === $this->canonical($combination, $pair->target)) {
                return new Cause(array_map(static fn(FormRule $form): CauseId => $form->id(), $combination));
            }
        }

        return null;
    }

    /** @param non-empty-list<FormRule> $combination */
    private function canonical(array $combination, string $value): string
    {
        foreach ($combination as $form) {
            $value = $form->canonical($value);
        }

        return $value;
    }
}
