<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\PatternRules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\PatternRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Row\KeyTuple;

/**
 * Codes of the old system that became codes of the new one: a source value has one target value wherever the cells differ.
 *
 * It is said of a column, so most of its differing cells must follow; a few names that were misspelt alike are no translation.
 */
final readonly class Translated implements PatternRule
{
    public const SEPARATOR = KeyTuple::SEPARATOR;

    private const LEAST_VALUES = 2;

    private const MOST_PAIRS = 1_000;

    /** Longer values are no codes. */
    private const LONGEST = 200;

    public function id(): CauseId
    {
        return CauseId::Translated;
    }

    public function evidence(CellPair $pair): array
    {
        if ($pair->source === '' || $pair->target === '' || strlen($pair->source) > self::LONGEST) {
            return [];
        }

        return [$pair->source.self::SEPARATOR.(strlen($pair->target) > self::LONGEST ? '' : $pair->target)];
    }

    public function decide(array $counts, int $cells): array
    {
        $targets = [];
        foreach ($counts as $evidence => $count) {
            [$source, $target] = explode(self::SEPARATOR, $evidence, 2);
            $targets[$source][$target] = $count;
        }
        $holds = [];
        $following = 0;
        foreach ($targets as $source => $ofSource) {
            $target = (string) array_key_first($ofSource);
            $count = $ofSource[$target];
            if (count($ofSource) === 1 && $target !== '' && $count >= self::LEAST) {
                $holds[$source.self::SEPARATOR.$target] = [];
                $following += $count;
            }
        }
        $isOfColumn = count($holds) >= self::LEAST_VALUES && count($holds) <= self::MOST_PAIRS && 2 * $following > $cells;

        return $isOfColumn ? $holds : [];
    }
}
