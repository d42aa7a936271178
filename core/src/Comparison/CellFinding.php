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
     * @param  SignedDifference|null  $difference  of two numbers; null where the pair is of another kind, or one cannot be read
     */
    public function __construct(
        public int $pairPosition,
        public CellClass $class,
        public string $cause,
        public array $facts,
        public string $source,
        public string $target,
        public ?SignedDifference $difference = null,
        public PatternPlace $place = new PatternPlace,
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
            place: $this->place,
        );
    }
}
