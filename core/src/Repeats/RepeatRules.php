<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

/** What becomes of rows of one side that share a key: the policy, with the places of the columns that decide, and what people chose. */
final readonly class RepeatRules
{
    /**
     * @param  list<Decider>  $deciders  whose values decide which row of a key is kept
     * @param  list<int>  $uncompared  positions of cells in which copies may differ
     * @param  array<string, ChosenRow>  $chosen  by canonical key: what a person chose
     * @param  array<string, RepeatRules>  $own  by {@see KeptRow::columnsKey()}: where rows differ in just these columns
     */
    public function __construct(
        public PolicyId $policy,
        private array $deciders = [],
        private array $uncompared = [],
        private array $chosen = [],
        private array $own = [],
    ) {}

    /** @param string $key canonical */
    public function keptRow(string $key): KeptRow
    {
        return new KeptRow(
            $this->policy,
            $this->deciders,
            $this->uncompared,
            $this->chosen[$key] ?? null,
            array_map(static fn(self $own): KeptRow => $own->keptRow($key), $this->own),
        );
    }

    /** @param string $key canonical */
    public function hasChoice(string $key): bool
    {
        return isset($this->chosen[$key]);
    }
}
