<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** What was decided of pairs of keys that differ: those that mean the same thing, and those that look alike and do not. */
final readonly class Bridges
{
    /**
     * @param  list<Bridge>  $confirmed
     * @param  list<Bridge>  $refused  never proposed again; they join nothing
     */
    public function __construct(public array $confirmed = [], public array $refused = []) {}

    /**
     * @param  list<array{source: list<string>, target: list<string>}>  $confirmed
     * @param  list<array{source: list<string>, target: list<string>}>  $refused
     */
    public static function fromArrays(array $confirmed, array $refused): self
    {
        return new self(array_map(Bridge::fromArray(...), $confirmed), array_map(Bridge::fromArray(...), $refused));
    }

    /**
     * @return array{bridges: list<array{source: list<string>, target: list<string>}>,
     *     refusedBridges: list<array{source: list<string>, target: list<string>}>}
     */
    public function toArrays(): array
    {
        $told = static fn(Bridge $pair): array => $pair->toArray();

        return ['bridges' => array_map($told, $this->confirmed), 'refusedBridges' => array_map($told, $this->refused)];
    }
}
