<?php

declare(strict_types=1);

namespace NineTally\Core\Profile\Repeats;

/** The groups that weigh most, of however many come along; of the same weight those that stand first. */
final class LargestGroups
{
    /** @var list<array{weight: int|float, group: RepeatGroup}> */
    private array $held = [];

    public function __construct(private readonly int $atMost) {}

    public function add(int|float $weight, RepeatGroup $group): void
    {
        $this->held[] = ['weight' => $weight, 'group' => $group];
        if (count($this->held) >= 2 * $this->atMost) {
            $this->prune();
        }
    }

    /** @return list<RepeatGroup> */
    public function groups(): array
    {
        $this->prune();

        return array_column($this->held, 'group');
    }

    private function prune(): void
    {
        usort(
            $this->held,
            static fn(array $one, array $other): int => $other['weight'] <=> $one['weight'] ?:
            $one['group']->order() <=> $other['group']->order(),
        );
        $this->held = array_slice($this->held, 0, $this->atMost);
    }
}
