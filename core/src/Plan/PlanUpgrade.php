<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** Plans of older format versions, as those of today. The words of the format changed; what a plan means did not. */
final class PlanUpgrade
{
    /** @var array<string, string> kinds of steps until version 2 => since version 3 */
    private const KINDS = [
        'drop-columns' => 'leave-out-columns',
        'clean-text' => 'tidy-text',
        'fold-columns' => 'columns-into-rows',
        'spread-rows' => 'rows-into-columns',
    ];

    /**
     * Version 1 had nothing but keys, pairs of text and what was left out: all of it means the same today. Version 2 called the
     * preparation of a side its shape, and the unit of a tolerance its measure.
     *
     * @param  \stdClass  $plan  as it was decoded, changed in place; what does not look like a plan stays as it is, for the schema to find
     */
    public static function toCurrent(\stdClass $plan): void
    {
        if (! in_array($plan->formatVersion ?? null, [1, 2], true)) {
            return;
        }
        $plan->formatVersion = Plan::FORMAT_VERSION;
        foreach ([...self::objects($plan->sides ?? null), ...self::objects($plan->references ?? null)] as $prepared) {
            self::rename($prepared, 'shape', 'preparation');
            foreach (self::objects($prepared->preparation ?? null) as $step) {
                $kind = $step->kind ?? null;
                $step->kind = is_string($kind) ? self::KINDS[$kind] ?? $kind : $kind;
            }
        }
        foreach (self::objects($plan->columnPairs ?? null) as $pair) {
            foreach (self::objects([$pair->tolerance ?? null]) as $tolerance) {
                self::rename($tolerance, 'measure', 'by');
            }
        }
    }

    private static function rename(\stdClass $object, string $old, string $new): void
    {
        if (property_exists($object, $old)) {
            $object->{$new} = $object->{$old};
            unset($object->{$old});
        }
    }

    /** @return list<\stdClass> */
    private static function objects(mixed $of): array
    {
        $values = $of instanceof \stdClass ? get_object_vars($of) : (is_array($of) ? $of : []);

        return array_values(array_filter($values, static fn(mixed $value): bool => $value instanceof \stdClass));
    }
}
