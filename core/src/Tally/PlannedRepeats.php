<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\Decider;
use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Repeats\RepeatRules;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\Columns;
use NineTally\Core\Value\ValueOrder;

/** What a plan says of rows of a side that share a key, with the places of its columns. */
final readonly class PlannedRepeats
{
    public function __construct(private SideRules $rules, private Columns $columns, private KeyForm $form) {}

    public function rules(): RepeatRules
    {
        $chosen = [];
        foreach ($this->rules->keptRows as $row) {
            $chosen[$this->form->canonical($row->key)] = $row;
        }

        return $this->of($this->rules->repeats, $chosen);
    }

    /** @param array<string, ChosenRow> $chosen by canonical key */
    private function of(RepeatsPolicy $policy, array $chosen = []): RepeatRules
    {
        $own = [];
        foreach ($policy->own as $differing) {
            $own[KeptRow::columnsKey($this->columns->positionsOf($differing->columns))] = $this->of($differing->policy);
        }

        return new RepeatRules(
            $policy->id,
            array_map(
                fn(DecidingColumn $deciding): Decider => new Decider(
                    $this->columns->positionOf($deciding->column),
                    new ValueOrder($this->rules->reading($deciding->column, $deciding->kind)),
                    $deciding->keepsHighest,
                ),
                $policy->deciding(),
            ),
            $this->columns->positionsOf($policy->except),
            $chosen,
            $own,
        );
    }
}
