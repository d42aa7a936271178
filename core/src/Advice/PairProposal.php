<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** A source column and a target column that may belong together, with how strongly and why. */
final readonly class PairProposal
{
    /**
     * @param  float  $score  from 0 to 1
     * @param  'strong'|'likely'|'weak'  $strength  strong: nothing else comes near
     * @param  list<string>  $reasons  in words
     */
    public function __construct(
        public string $source,
        public string $target,
        public float $score,
        public string $strength,
        public array $reasons,
    ) {}

    /** @return array{source: string, target: string, score: float, strength: string, reasons: list<string>} */
    public function toArray(): array
    {
        return [
            'source' => $this->source,
            'target' => $this->target,
            'score' => round($this->score, 3),
            'strength' => $this->strength,
            'reasons' => $this->reasons,
        ];
    }
}
