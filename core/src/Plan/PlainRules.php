<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Row\Side;

/**
 * Whether rows whose delivered bytes are equal are sure to agree under a plan, with nothing to be told of them: then a database that holds
 * both can be asked which rows are equal, and those need not be drawn. Rules that make unequal values agree (causes that are forgiven,
 * tolerances) are no hindrance, for what is unequal is drawn.
 */
final readonly class PlainRules
{
    /** @return list<string> what keeps equal bytes from being sure to agree, or asks for every row; none: the plan is plain */
    public static function hindrances(Plan $plan): array
    {
        $rules = $plan->columnRules;

        return array_keys(
            array_filter([
                'steps change rows before they are compared' => self::any(
                    $plan,
                    static fn(SideRules $side): bool => ! $side->preparation->isEmpty(),
                ),
                'a policy says what becomes of rows that share a key' => self::any(
                    $plan,
                    static fn(SideRules $side): bool => ! $side->repeats->isDefault() || $side->keptRows !== [],
                ),
                'parts of the key are matched by their form' =>
                    array_filter($plan->key, static fn(KeyColumn $column): bool => $column->forgives !== []) !== [],
                'bridges join keys' => $plan->bridges->confirmed !== [],
                'a crosswalk changes values' =>
                    array_filter($plan->columnPairs, static fn(ColumnPair $pair): bool => $pair->crosswalk !== []) !== [],
                'both sides are read in different forms' => self::readsDifferently($plan),
                'control totals need every row' => $rules->totals !== [],
                'values are looked for in other datasets' => $rules->records !== [],
                'columns have demands that every row is held against' => $rules->demands !== [],
            ]),
        );
    }

    /** @param \Closure(SideRules): bool $is */
    private static function any(Plan $plan, \Closure $is): bool
    {
        return $is($plan->source) || $is($plan->target);
    }

    private static function readsDifferently(Plan $plan): bool
    {
        $reads = static fn(Side $side, string $column, ColumnPair|KeyColumn $of) => $plan
            ->side($side)
            ->reading($column, $of instanceof ColumnPair ? $of->kind : \NineTally\Core\Value\Kind::Text);
        foreach ([...$plan->key, ...$plan->columnPairs] as $of) {
            if (! $reads(Side::Source, $of->source, $of)->isLike($reads(Side::Target, $of->target, $of))) {
                return true;
            }
        }

        return false;
    }
}
