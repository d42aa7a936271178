<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Ruling;

/** An act of ruling as a tally has it: entered there, or taken over from an earlier one. */
final readonly class ActOfTally
{
    /**
     * @param  int  $standing  findings of the tally on which it stands now
     * @param  string|null  $words  of what it was about, where that was on another tally
     */
    public function __construct(
        public Ruling $act,
        public int $tally,
        public int $standing,
        public bool $isUndone,
        public ?string $words,
    ) {}

    /** @return array{tally: int, standing: int, undone: bool, words: string|null} */
    public function toArray(): array
    {
        return ['tally' => $this->tally, 'standing' => $this->standing, 'undone' => $this->isUndone, 'words' => $this->words];
    }
}
