<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\MemoRoom;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Value\Kind;

/** How the columns of a plan are held against each other, under what each side declares: those of the key as text. */
final class PlanComparisons
{
    /** @var array<int, ColumnComparison> by column of the key */
    private array $ofKey = [];

    private readonly MemoRoom $room;

    public function __construct(private readonly Plan $plan, private readonly CauseCatalogue $catalogue = new CauseCatalogue)
    {
        $this->room = new MemoRoom;
    }

    public function ofPair(ColumnPair $pair): ColumnComparison
    {
        return new ColumnComparison(
            $pair,
            $this->plan->source->reading($pair->source, $pair->kind),
            $this->plan->target->reading($pair->target, $pair->kind),
            $this->catalogue,
            $this->room,
        );
    }

    public function ofKey(KeyColumn $column): ColumnComparison
    {
        return new ColumnComparison(
            new ColumnPair('key', $column->source, $column->target, Kind::Text, $column->forgives),
            $this->plan->source->reading($column->source, Kind::Text),
            $this->plan->target->reading($column->target, Kind::Text),
            $this->catalogue,
            $this->room,
        );
    }

    /**
     * What the key lets pass in a row that met its counterpart by the key.
     *
     * @param  list<string>  $source  the key as each side has it
     * @param  list<string>  $target
     * @return array<int, string> by column of the key that is not the same on both sides: the id of the cause
     */
    public function forgivenInKey(array $source, array $target): array
    {
        $causes = [];
        foreach ($this->plan->key as $position => $column) {
            if ($source[$position] !== $target[$position]) {
                $comparison = $this->ofKey[$position] ??= $this->ofKey($column);
                $causes[$position] = $comparison->classify($source[$position], $target[$position])->cause->id ?? '';
            }
        }

        return $causes;
    }
}
