<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

/** One cell that needs an explanation. */
final readonly class CellFinding
{
    /**
     * @param  int  $pairPosition  the column pair's place in the plan, from 0
     * @param  string  $cause  the ids of the cause, joined with + when causes of form combine
     * @param  array<string, string|int>  $facts
     */
    public function __construct(
        public int $pairPosition,
        public CellClass $class,
        public string $cause,
        public array $facts,
        public string $source,
        public string $target,
        public int $pattern = 0,
        public int $ordinalInPattern = 0,
    ) {}

    /** The same finding as somebody is shown it, who may not see its values. */
    public function withValues(string $source, string $target): self
    {
        return new self(
            $this->pairPosition,
            $this->class,
            $this->cause,
            $this->facts,
            $source,
            $target,
            $this->pattern,
            $this->ordinalInPattern,
        );
    }

    /** The same finding with its place: the number of its pattern in the tally, and its ordinal there, both from 1. */
    public function inPattern(int $pattern, int $ordinal): self
    {
        return new self($this->pairPosition, $this->class, $this->cause, $this->facts, $this->source, $this->target, $pattern, $ordinal);
    }
}
