<?php

declare(strict_types=1);

namespace App\Models;

/** What people are told of without having asked. */
enum NoticeKind: string
{
    case TallyDone = 'tally-done';
    case LimitFailed = 'limit-failed';
    case NewPatterns = 'new-patterns';
    case NewRepeats = 'new-repeats';
    case DrawFailed = 'draw-failed';
    case SignOffReturned = 'sign-off-returned';

    /** Whether somebody who has said nothing is told in the application: whoever waits for a tally sees it come. */
    public function isToldUnasked(): bool
    {
        return $this !== self::TallyDone;
    }

    public function words(): string
    {
        return match ($this) {
            self::TallyDone => 'a tally is done',
            self::LimitFailed => 'a limit fails that is not waived',
            self::NewPatterns => 'a tally has patterns that the one before it did not have',
            self::NewRepeats => 'keys repeat where none did before',
            self::DrawFailed => 'a dataset was not drawn at its time, or could not be tallied then',
            self::SignOffReturned => 'signatures on a tally were returned',
        };
    }
}
