<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/**
 * What became of the rows of both sides, and of references, while they were prepared.
 *
 * @phpstan-type StepFigure array{number: int, sentence: string, in: int, made: int, condensed: int, leftOut: int, out: int, altered: int,
 *     notes: array<string, int>, values: array<string, array<string, int>>}
 */
final readonly class PreparationFigures
{
    /**
     * @param  array<string, list<StepFigure>>  $steps  by side: what each step did, and what it counted beside
     * @param  array<string, list<array<string, mixed>>>  $references  by side: what became of the rows of references
     */
    public function __construct(public array $steps = [], public array $references = []) {}
}
