<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Cause\PatternRules\Translated;
use NineTally\Core\Cause\PatternRules\Truncated;
use NineTally\Core\Comparison\CellPair;

/**
 * Tells codes from cuts: "active" that became "A" is the start of it, and still a code.
 *
 * Codes are cuts of at most three characters that no two source values share; and all cells of a column in which each source value has
 * one target value, of which one at least is no cut.
 */
final readonly class Codes
{
    private const LONGEST_CODE = 3;

    public function __construct(private FormCombination $forms, private Truncated $truncated = new Truncated) {}

    /**
     * @param  array<string, array<string, array<string, string|int>>>  $holds  cause id => evidence => facts
     * @param  array<string, int>  $pairs  value pairs as evidence of Translated => cells
     * @return array<string, array<string, array<string, string|int>>> what holds when codes and cuts are told apart
     */
    public function settled(array $holds, array $pairs): array
    {
        $translated = $holds[CauseId::Translated->value] ?? [];
        $truncated = $holds[CauseId::Truncated->value] ?? [];
        if ($translated === [] || $truncated === []) {
            return $holds;
        }
        $cut = (string) array_key_first($truncated);
        [$cuts, $others] = [[], []];
        foreach (array_keys($pairs) as $pair) {
            in_array($cut, $this->evidence((string) $pair), true) ? $cuts[] = (string) $pair : $others[] = (string) $pair;
        }
        if ($others !== [] && $this->isFunction(array_map(strval(...), array_keys($pairs)))) {
            // The whole column follows, so its rarest values do too.
            $holds[CauseId::Translated->value] = array_fill_keys(array_keys($pairs), []);
            unset($holds[CauseId::Truncated->value]);
        } elseif (
            $this->areShort($truncated[$cut]) &&
            $this->isInjective($cuts) &&
            array_diff($cuts, array_map(strval(...), array_keys($translated))) === []
        ) {
            unset($holds[CauseId::Truncated->value]);
        }

        return $holds;
    }

    /** @return list<string> */
    private function evidence(string $pair): array
    {
        $bare = NormalisedPair::of(new CellPair(...explode(Translated::SEPARATOR, $pair, 2)), $this->forms);
        $evidence = $this->truncated->evidence($bare->pair);

        return $evidence !== [] ? $evidence : $this->truncated->evidence($bare->bare);
    }

    /** @param array<string, string|int> $facts of a cut */
    private function areShort(array $facts): bool
    {
        return (int) ($facts['characters'] ?? self::LONGEST_CODE + 1) <= self::LONGEST_CODE;
    }

    /** @param list<string> $pairs */
    private function isFunction(array $pairs): bool
    {
        return $this->areDistinct($pairs, 0);
    }

    /** @param list<string> $pairs */
    private function isInjective(array $pairs): bool
    {
        return $this->areDistinct($pairs, 1);
    }

    /** @param list<string> $pairs */
    private function areDistinct(array $pairs, int $place): bool
    {
        $values = array_map(static fn(string $pair): string => explode(Translated::SEPARATOR, $pair, 2)[$place] ?? '', $pairs);

        return count(array_unique($values)) === count($values);
    }
}
