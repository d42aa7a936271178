<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

/** Does pieces of a tally's work, in any order. */
interface Crew
{
    /**
     * @param  list<string>  $pieces  names, as TallyWork gives them
     * @param  callable(string, int, int): void  $onProgress  piece, bytes read of it and records read of it, so far
     * @param  callable(string): void  $onDone  piece
     */
    public function perform(TallyWork $work, array $pieces, callable $onProgress, callable $onDone): void;
}
