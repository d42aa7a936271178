<?php

declare(strict_types=1);

namespace NineTally\Core\Figures;

use NineTally\Core\NineTallyException;

/** A broken promise: a row was lost or counted twice. This is a defect of the engine, never of the data. */
final class UnbalancedTally extends \LogicException implements NineTallyException
{
    private function __construct(public readonly string $equation, public readonly string $left, public readonly string $right)
    {
        parent::__construct(
            sprintf(
                'The sums of this tally do not add up (%s: %s against %s), so it reports nothing. Please report this as a defect, with '.
                    'the plan.',
                $equation,
                $left,
                $right,
            ),
        );
    }

    public static function inEquation(string $equation, int $left, int $right): self
    {
        return new self($equation, (string) $left, (string) $right);
    }

    /** @param string $column of the source; '' where rows are counted */
    public static function inTotal(string $measure, string $column, string $difference, string $shares): self
    {
        return new self(trim("{$measure} of {$column}", ' of').': difference = its shares', $difference, $shares);
    }

    public function code(): string
    {
        return 'unbalanced-tally';
    }
}
