<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Preparation\PreparationLedger;
use NineTally\Core\Row\Sides;

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

    /** @param Sides<PreparationLedger|null> $ledgers null where a side has no steps */
    public static function of(Sides $ledgers): self
    {
        return new self(
            $ledgers->map(self::stepsOf(...))->named(),
            $ledgers->map(static fn(?PreparationLedger $ledger): array => $ledger->references ?? [])->named(),
        );
    }

    /** @return list<StepFigure> */
    private static function stepsOf(?PreparationLedger $ledger): array
    {
        return array_map(
            static fn(array $step): array => [
                ...['number' => $step['number'], 'sentence' => $step['sentence']],
                'in' => $step['figures']['in'],
                'made' => $step['figures']['made'],
                'condensed' => $step['figures']['condensed'],
                'leftOut' => $step['figures']['leftOut'],
                'out' => $step['figures']['out'],
                'altered' => $step['figures']['altered'],
                'notes' => $step['figures']['notes'],
                'values' => $step['figures']['values'],
            ],
            $ledger->steps ?? [],
        );
    }
}
