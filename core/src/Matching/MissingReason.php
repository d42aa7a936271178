<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

/** Why a row is in its class, where it is known: why a missing or extra one has no counterpart, and what is to be known of one that was not kept. */
enum MissingReason: string
{
    case FewerRows = 'fewer-rows';
    case IdleBridge = 'idle-bridge';

    /** Of a repeated row: no column decides between it and the one that was kept. */
    case Undecided = 'undecided';

    /** A step left the row with its key out. */
    case LeftOut = 'left-out';

    public function sentence(): string
    {
        return match ($this) {
            self::FewerRows => 'its key stands there in fewer rows',
            self::IdleBridge => 'its bridge joined nothing',
            self::Undecided => 'no column decides between them',
            self::LeftOut => 'its key was left out there',
        };
    }
}
