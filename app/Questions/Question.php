<?php

declare(strict_types=1);

namespace App\Questions;

/** Something that takes a pass over deliveries to find out. It is asked by what it is about, and answered by a worker, once. */
interface Question
{
    /** A word for what is asked, the same for all questions of the kind. */
    public function kind(): string;

    /** @return array<array-key, mixed> everything that decides about the answer */
    public function about(): array;

    /**
     * @param  \Closure(int, int): void  $onProgress  told how much is done of how much; throws when nobody waits for the answer any more
     * @return array<string, mixed>
     *
     * @throws \NineTally\Core\NineTallyException
     */
    public function answer(QuestionContext $material, \Closure $onProgress): array;
}
