<?php

declare(strict_types=1);

namespace App\Adapters;

use NineTally\Core\Tally\TallyWork;

/** Does a piece that is held, with signs of life. */
final readonly class PieceOfWork
{
    /** @param (callable(int, int): void)|null $onProgress bytes and records read of the piece so far */
    public static function perform(TallyWork $work, PieceLease $piece, ?callable $onProgress = null): void
    {
        $bytes = $records = 0;
        $work->perform($piece->name, static function (int $bytesRead, int $recordsRead) use (&$bytes, &$records, $piece, $onProgress): void {
            [$bytes, $records] = [$bytesRead, $recordsRead];
            $piece->progress($bytes, $records);
            $onProgress === null || $onProgress($bytes, $records);
        });
        $piece->done($bytes, $records);
    }
}
