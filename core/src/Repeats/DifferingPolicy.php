<?php

declare(strict_types=1);

namespace NineTally\Core\Repeats;

/** A policy of their own for keys whose rows differ in these columns, and in no other. */
final readonly class DifferingPolicy
{
    /** @param list<string> $columns  none: rows that are equal in every column */
    public function __construct(public array $columns, public RepeatsPolicy $policy) {}

    /** @return array<string, mixed> as the plan writes it */
    public function toArray(): array
    {
        return ['differ' => $this->columns, ...$this->policy->toArray()];
    }
}
