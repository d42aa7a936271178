<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

/** Rows of both sides that share some values, of which at least one side has several. */
final readonly class RepeatGroup
{
    public function __construct(public LookedGroup $source, public LookedGroup $target) {}

    /** @return array{source: LookedGroup, target: LookedGroup} */
    public function sides(): array
    {
        return ['source' => $this->source, 'target' => $this->target];
    }

    public function rows(): int
    {
        return count($this->source->places) + count($this->target->places);
    }

    public function differing(): int
    {
        return max(count($this->source->differing), count($this->target->differing));
    }

    /** How much is at stake, whichever way: only to put groups in order. */
    public function stake(): float
    {
        return max(array_map(
            static fn(LookedGroup $group): float => abs($group->surplus?->total()->toFloat() ?? 0.0),
            array_values($this->sides()),
        ));
    }

    /** Repeats on one side what the other does not have at all: a loss hides there. */
    public function isOfOneSide(): bool
    {
        return $this->source->places === [] || $this->target->places === [];
    }

    /** @return array{int, int, string} by which groups of the same weight stand in an order that is always the same */
    public function order(): array
    {
        $of = $this->source->places !== [] ? $this->source : $this->target;

        return [$this->source->places === [] ? 1 : 0, $of->places[0] ?? 0, implode("\0", $of->shown[0] ?? [])];
    }
}
