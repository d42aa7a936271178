<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;

/** One writing for all values of a side that a pair of columns takes for the same, whether the plan compares the pair or not. */
final readonly class PairedForm
{
    private CanonicalForm $form;

    /** @var array<string, string> which the source goes through */
    private array $crosswalk;

    /** @param array{source: string, target: string} $columns */
    public function __construct(array $columns, Side $side, Plan $plan, FormCombination $forms)
    {
        $pair = self::pairOf($plan, $columns);
        $kind = $pair instanceof ColumnPair ? $pair->kind : Kind::Text;
        $this->form = new CanonicalForm($plan->side($side)->reading($columns[$side->value], $kind), $pair->forgives ?? [], $forms);
        $this->crosswalk = self::crosswalk($pair, $side);
    }

    public function of(string $cell): string
    {
        return $this->form->of($this->crosswalk[$cell] ?? $cell);
    }

    /** @param array{source: string, target: string} $columns */
    public static function pairOf(Plan $plan, array $columns): ColumnPair|KeyColumn|null
    {
        foreach ([...$plan->key, ...$plan->columnPairs] as $pair) {
            if ($pair->source === $columns['source'] && $pair->target === $columns['target']) {
                return $pair;
            }
        }

        return null;
    }

    /** @return array<string, string> */
    public static function crosswalk(ColumnPair|KeyColumn|null $pair, Side $side): array
    {
        return $side === Side::Source && $pair instanceof ColumnPair ? $pair->crosswalk : [];
    }
}
