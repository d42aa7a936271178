<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Plan\Bridge;

/** What the key did beside matching rows of equal cells. */
final readonly class KeyFigures
{
    /**
     * @param  list<array{source: string, target: string, cause: string, cells: int,
     *     examples: list<array{source: string, target: string}>}>  $forgiven  cells of the key that a cause let pass
     * @param  int  $bridged  rows that met by a bridge
     * @param  list<Bridge>  $idleBridges
     * @param  array<string, int>  $undecided  by side: keys of several rows whose deciding columns do not decide
     * @param  ChoiceFigures  $choices  what became of rows that people chose
     */
    public function __construct(
        public array $forgiven = [],
        public int $bridged = 0,
        public array $idleBridges = [],
        public array $undecided = [],
        public ChoiceFigures $choices = new ChoiceFigures,
    ) {}
}
