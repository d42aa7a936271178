<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** How the values of a pair could be read, the best way first; several where the rows do not tell which is meant. */
final readonly class FormProposal
{
    /**
     * @param  non-empty-list<FormWay>  $ways
     * @param  int  $compared  rows with a value on both sides; of values, where no rows meet
     * @param  int  $asText  of them equal as they stand
     * @param  list<int>  $rows  some that agree in the first way, and not as text or not in the next way
     * @param  bool  $isOfRows  whether rows that meet were looked at, and not the values of both columns for themselves
     */
    public function __construct(
        public array $ways,
        public int $compared,
        public int $asText,
        public array $rows,
        public bool $isOfRows,
    ) {}

    public function isDecided(): bool
    {
        return count($this->ways) === 1;
    }
}
