<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/** Whether a limit holds. What has no figure fails: nobody can say that it is good enough. */
enum LimitState: string
{
    case Holds = 'holds';
    case Fails = 'fails';
    case NoFigure = 'no-figure';

    public function fails(): bool
    {
        return $this !== self::Holds;
    }
}
