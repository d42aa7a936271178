<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\PatternRules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\PatternRule;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Value\Decimal;

/** Numbers that all lie by one constant apart: a fee that is 1.00 higher wherever it stands. One source value alone shows no constant. */
final readonly class Offset implements PatternRule
{
    public const SEPARATOR = KeyTuple::SEPARATOR;

    private const LEAST_VALUES = 2;

    public function id(): CauseId
    {
        return CauseId::Offset;
    }

    public function evidence(CellPair $pair): array
    {
        $numbers = $pair->numbers();
        $apart = $numbers === null ? null : $numbers[1]->minus($numbers[0]);

        return $apart === null || $apart->isZero() ? [] : [$apart->canonical().self::SEPARATOR.$numbers[0]->canonical()];
    }

    /**
     * Of each constant it matters how often it is met, and whether there are two source values: evidence that says the same in fewer
     * pieces.
     *
     * @param  array<string, int>  $counts
     * @return array<string, int>
     */
    public static function condensed(array $counts): array
    {
        ksort($counts, SORT_STRING);
        $condensed = $kept = [];
        foreach ($counts as $evidence => $cells) {
            [$apart] = explode(self::SEPARATOR, $evidence);
            // The second source value stands for all that come after it.
            if (count($kept[$apart] ?? []) < self::LEAST_VALUES) {
                $kept[$apart][] = $evidence;
            }
            $stands = $kept[$apart][array_key_last($kept[$apart])];
            $condensed[$stands] = ($condensed[$stands] ?? 0) + $cells;
        }

        return $condensed;
    }

    public function decide(array $counts, int $cells): array
    {
        $byConstant = $values = [];
        foreach ($counts as $evidence => $count) {
            [$apart, $source] = explode(self::SEPARATOR, $evidence);
            $byConstant[$apart] = ($byConstant[$apart] ?? 0) + $count;
            $values[$apart][$source] = true;
        }
        $best = null;
        foreach ($byConstant as $apart => $count) {
            $apart = (string) $apart;
            if (
                $count >= self::LEAST &&
                count($values[$apart]) >= self::LEAST_VALUES &&
                ($best === null || [-$count, strlen($apart), $apart] < [-$byConstant[$best], strlen($best), $best])
            ) {
                $best = $apart;
            }
        }

        return $best === null ? [] : [$best => ['constant' => Decimal::fromCanonical($best)->written()]];
    }

    /** @return list<string> what of the evidence the decision is made by: the constant alone */
    public static function decisive(string ...$evidence): array
    {
        return array_map(static fn(string $one): string => explode(self::SEPARATOR, $one)[0], array_values($evidence));
    }
}
