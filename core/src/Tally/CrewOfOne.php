<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** Does one piece after the other in this process. */
final readonly class CrewOfOne implements Crew
{
    public function perform(TallyWork $work, array $pieces, callable $onProgress, callable $onDone): void
    {
        foreach ($pieces as $piece) {
            $work->perform($piece, static fn(int $bytes, int $records) => $onProgress($piece, $bytes, $records));
            $onDone($piece);
        }
    }
}
