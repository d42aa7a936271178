<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

final readonly class NoReferences implements References
{
    public function named(string $name): ReferenceTable
    {
        throw UnusableStep::because(sprintf('There is no reference "%s". Add it before you tally.', $name));
    }

    public function ledgers(): array
    {
        return [];
    }
}
