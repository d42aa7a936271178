<?php

declare(strict_types=1);

namespace App\Questions;

/** The same look at the beginning of both sides alone: what can be said at once where all rows take a while. */
final readonly class HowFirstRowsRepeat implements QuickQuestion
{
    public function __construct(private HowRowsRepeat $whole, private int $rows) {}

    public function kind(): string
    {
        return 'how-first-rows-repeat';
    }

    public function about(): array
    {
        return [$this->whole->about(), $this->rows];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $this->whole->look($material, $onProgress, $this->rows);
    }
}
