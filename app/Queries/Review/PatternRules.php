<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Pattern;
use App\Models\Tally;
use NineTally\Core\Advice\RulesOfPattern;
use NineTally\Core\Comparison\ColumnPair;

/** What would let the cells of a pattern pass, each rule with how many of them. */
final readonly class PatternRules
{
    /** Distinct value pairs that are looked at: of numbers nearly every cell has its own. */
    private const VALUE_PAIRS = 50_000;

    public function __construct(private ValuePairs $pairs) {}

    /** @return array{items: list<array{kind: string, rule: array<string, mixed>, settles: int}>, cells: int, cellsRead: int} */
    public function of(Tally $tally, Pattern $pattern, Mask $mask): array
    {
        $plan = $tally->planVersion->plan();
        $pair = array_values(array_filter($plan->columnPairs, static fn(ColumnPair $one): bool => $one->id === $pattern->pair_id))[0];
        $rules = new RulesOfPattern(
            $pair,
            $plan->source->reading($pair->source, $pair->kind),
            $plan->target->reading($pair->target, $pair->kind),
        );
        // A rule made of values would tell them.
        $found = $mask->hides($pair->source)
            ? ['items' => [], 'isAll' => false, 'cellsRead' => 0]
            : $this->pairs->of($tally, $pattern, most: self::VALUE_PAIRS);

        return [
            'items' => $rules->of($pattern->cause, $pattern->cells, $found['items'], $found['isAll']),
            'cells' => $pattern->cells,
            'cellsRead' => $found['cellsRead'],
        ];
    }
}
