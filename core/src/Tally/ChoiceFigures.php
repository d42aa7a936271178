<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Repeats\ChosenRow;

/** What became of the rows that people chose to be kept. */
final readonly class ChoiceFigures
{
    /**
     * @param  int  $held  choices that hold
     * @param  list<ChosenRow>  $reopened  whose rows are not the same any more
     * @param  list<ChosenRow>  $idle  whose rows do not repeat any more
     */
    public function __construct(public int $held = 0, public array $reopened = [], public array $idle = []) {}

    public static function of(Plan $plan, MatchCounts $counts, FormCombination $forms): self
    {
        $held = 0;
        $reopened = $idle = [];
        foreach ($plan->keptRows() as $chosen) {
            $key = $plan->keyForm($chosen->side, $forms)->canonical($chosen->key);
            match ($counts->choice($chosen->side, $key)) {
                true => $held++,
                false => $reopened[] = $chosen,
                null => $idle[] = $chosen,
            };
        }

        return new self($held, $reopened, $idle);
    }

    public function count(): int
    {
        return $this->held + count($this->reopened) + count($this->idle);
    }

    /**
     * @return array{held: int, reopened: list<array{side: string, key: list<string>}>, idle: list<array{side: string,
     *     key: list<string>}>}
     */
    public function toArray(): array
    {
        $told = static fn(ChosenRow $chosen): array => ['side' => $chosen->side->value, 'key' => $chosen->key];

        return ['held' => $this->held, 'reopened' => array_map($told, $this->reopened), 'idle' => array_map($told, $this->idle)];
    }
}
