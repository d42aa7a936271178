<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use NineTally\Core\Cause\PatternRules\Offset;

/** Which causes of a whole column hold for one column pair, and on what evidence. */
final readonly class ColumnDecision
{
    /** @param array<string, array<string, array<string, string|int>>> $holds cause id => evidence => facts */
    public function __construct(private array $holds) {}

    /** Whether it holds for any evidence. */
    public function holds(CauseId $id): bool
    {
        return isset($this->holds[$id->value]);
    }

    /** @param list<string> $evidence the likeliest first */
    public function cause(CauseId $id, array $evidence): ?Cause
    {
        foreach ($id === CauseId::Offset ? Offset::decisive(...$evidence) : $evidence as $one) {
            if (isset($this->holds[$id->value][$one])) {
                return Cause::of($id, $this->holds[$id->value][$one]);
            }
        }

        return null;
    }
}
