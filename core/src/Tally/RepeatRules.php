<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Repeats\Decider;
use NineTally\Core\Repeats\DecidingColumn;
use NineTally\Core\Repeats\KeptRow;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Value\ValueOrder;

/** What a plan says of rows that share a key, with the places of the columns that decide. */
final readonly class RepeatRules
{
    /**
     * @param  Sides<Columns>  $columns  prepared
     * @param  Sides<KeyForm>  $forms  of the key
     */
    public function __construct(private Plan $plan, private Sides $columns, private Sides $forms) {}

    /** @return list<Decider> */
    public function deciders(Side $side): array
    {
        $rules = $this->plan->side($side);

        return array_map(
            fn(DecidingColumn $deciding): Decider => new Decider(
                $this->columns->of($side)->positionOf($deciding->column),
                new ValueOrder($rules->reading($deciding->column, $deciding->kind)),
                $deciding->keepsHighest,
            ),
            $rules->repeats->deciding(),
        );
    }

    /** @return list<int> positions of cells in which copies may differ */
    public function uncompared(Side $side): array
    {
        return $this->columns->of($side)->positionsOf($this->plan->side($side)->repeats->except);
    }

    /** @return array<string, ChosenRow> by canonical key: what people chose */
    public function chosen(Side $side): array
    {
        $chosen = [];
        foreach ($this->plan->side($side)->keptRows as $row) {
            $chosen[$this->forms->of($side)->canonical($row->key)] = $row;
        }

        return $chosen;
    }

    /** @param string $key canonical */
    public function keptRow(Side $side, string $key): KeptRow
    {
        return new KeptRow(
            $this->plan->side($side)->repeats->id,
            $this->deciders($side),
            $this->uncompared($side),
            $this->chosen($side)[$key] ?? null,
        );
    }

    /** Whether a person chose among the rows of a canonical key, on either side. */
    public function hasChoice(string $key): bool
    {
        return isset($this->chosen(Side::Source)[$key]) || isset($this->chosen(Side::Target)[$key]);
    }
}
