<?php

declare(strict_types=1);

namespace NineTally\Core\Figures;

use NineTally\Core\NineTallyException;

/** A broken promise: a row was lost or counted twice. This is a defect of the engine, never of the data. */
final class UnbalancedTally extends \LogicException implements NineTallyException
{
    private function __construct(public readonly string $equation, public readonly int $left, public readonly int $right)
    {
        parent::__construct(
            sprintf(
                'The sums of this tally do not add up (%s: %d against %d), so it reports nothing. Please report this as a defect, with '.
                    'the plan.',
                $equation,
                $left,
                $right,
            ),
        );
    }

    public static function inEquation(string $equation, int $left, int $right): self
    {
        return new self($equation, $left, $right);
    }

    public function code(): string
    {
        return 'unbalanced-tally';
    }
}
