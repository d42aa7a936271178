<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\Problem;
use NineTally\Core\Plan\UnusablePlan;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** Columns that totals over delivered rows take must be there before the steps as well as after them. */
final readonly class DeliveredColumns
{
    private const PROBLEM = 'The %s is over delivered rows, and the %s was delivered without a column "%s". Take it over prepared rows.';

    /**
     * @param  Sides<Columns>  $delivered  before any step
     *
     * @throws UnusablePlan with each that is not there
     */
    public static function mustHold(Plan $plan, Sides $delivered): void
    {
        $problems = [];
        foreach ($plan->columnRules->totals as $number => $total) {
            foreach ($total->over === Basis::Delivered ? Side::cases() : [] as $side) {
                foreach ($total->namesByPlace($side) as $place => $name) {
                    if (! $delivered->of($side)->has($name)) {
                        $problems[] = new Problem("/totals/{$number}{$place}", sprintf(self::PROBLEM, $total->name(), $side->value, $name));
                    }
                }
            }
        }
        if ($problems !== []) {
            throw UnusablePlan::because($problems);
        }
    }
}
