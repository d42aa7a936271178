<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\NineTallyException;

final class UnusablePlan extends \DomainException implements NineTallyException
{
    /** @param non-empty-list<Problem> $problems */
    private function __construct(public readonly array $problems)
    {
        parent::__construct(implode(' ', array_unique(array_map(static fn(Problem $problem): string => $problem->message, $problems))));
    }

    /** @param non-empty-list<Problem> $problems */
    public static function because(array $problems): self
    {
        return new self($problems);
    }

    public function code(): string
    {
        return 'unusable-plan';
    }
}
