<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredReading;

/**
 * What one plan says that holds for other datasets of the same two systems too: how each side writes its values, and which causes of form
 * new pairs forgive. What single columns declare counts where all that declare it say the same.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type Defaults array{sides?: array<string, Declared>, defaults?: array{forgives: list<string>}}
 */
final readonly class PlanDefaults
{
    /** @return Defaults nothing where the plan says nothing of that sort */
    public static function of(Plan $plan): array
    {
        $sides = [];
        foreach (Side::cases() as $side) {
            $declared = self::ofSide($plan->side($side));
            $sides += $declared === [] ? [] : [$side->value => $declared];
        }
        $forgives = $plan->columnRules->defaultForgives;

        return [...$sides === [] ? [] : ['sides' => $sides], ...$forgives === [] ? [] : ['defaults' => ['forgives' => $forgives]]];
    }

    /** @return Declared */
    private static function ofSide(SideRules $rules): array
    {
        $said = [];
        foreach ([$rules->declared, ...array_values($rules->columns)] as $declared) {
            foreach ($declared as $what => $value) {
                $said[$what][] = $value;
            }
        }
        $common = [];
        foreach ($said as $what => $values) {
            $lists = array_filter($values, is_array(...));
            if ($lists !== []) {
                // Tokens and forms of several columns stand beside each other; each value is read by the one that fits.
                $common[$what] = array_values(array_unique(array_merge(...array_values($lists))));
            } elseif (count(array_unique($values, SORT_REGULAR)) === 1) {
                $common[$what] = $values[0];
            }
        }
        // What is ambiguous in one column would be guessed in another: two forms with the same places are said by nobody.
        /** @var list<string> $forms */
        $forms = $common['dateForms'] ?? [];
        $places = array_map(static fn(string $form): string => str_replace(['MM', 'dd', 'M', 'd'], ['#', '#', '#', '#'], $form), $forms);
        if (count(array_unique($places)) !== count($places)) {
            unset($common['dateForms']);
        }

        /** @var Declared $common */
        return $common;
    }
}
