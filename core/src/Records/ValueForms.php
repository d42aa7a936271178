<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Cause\CanonicalForm;
use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\PairedForm;
use NineTally\Core\Value\Kind;

/** One writing for all values of a side that meet the same record: as the rows are read, for its records are of the same world. */
final readonly class ValueForms
{
    /** @var list<CanonicalForm> by column */
    private array $own;

    /** @var list<CanonicalForm> of what a crosswalk gives */
    private array $ofTarget;

    /** @var list<array<string, string>> */
    private array $crosswalks;

    public function __construct(RequiredRecord $rule, Side $side, Plan $plan, FormCombination $forms)
    {
        $of = static fn(Side $of): array => array_map(
            static fn(string $name): CanonicalForm => new CanonicalForm(
                $plan->side($of)->reading($name, Kind::Text),
                $rule->forgives,
                $forms,
            ),
            $rule->columnsOf($of),
        );
        $this->own = $of($side);
        $this->ofTarget = $of(Side::Target);
        $this->crosswalks = array_map(
            static fn(array $columns): array => PairedForm::crosswalk(PairedForm::pairOf($plan, $columns), $side),
            $rule->columns,
        );
    }

    /**
     * @param  list<string>  $cells
     * @return list<string> all empty where there is no value
     */
    public function of(array $cells): array
    {
        return array_map(static fn(CanonicalForm $form, string $cell): string => $form->of($cell), $this->own, $cells);
    }

    /**
     * The same as the target would write it, where a crosswalk says so.
     *
     * @param  list<string>  $cells
     * @return list<string>
     */
    public function across(array $cells): array
    {
        return array_map(
            static fn(array $crosswalk, CanonicalForm $own, CanonicalForm $ofTarget, string $cell): string => isset($crosswalk[$cell])
                ? $ofTarget->of($crosswalk[$cell])
                : $own->of($cell),
            $this->crosswalks,
            $this->own,
            $this->ofTarget,
            $cells,
        );
    }
}
