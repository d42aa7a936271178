<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/** One column of the key, under its name on each side. */
final readonly class KeyColumn
{
    /** @param list<string> $forgives ids of causes of form: rows meet although their keys differ by these */
    public function __construct(public string $source, public string $target, public array $forgives = []) {}

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['source' => $this->source, 'target' => $this->target, ...array_filter(['forgives' => $this->forgives])];
    }
}
