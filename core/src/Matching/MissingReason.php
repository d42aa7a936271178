<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

/** Why a missing or extra row has no counterpart, where it is known. */
enum MissingReason: string
{
    case FewerRows = 'fewer-rows';
    case IdleBridge = 'idle-bridge';

    public function sentence(): string
    {
        return match ($this) {
            self::FewerRows => 'its key stands there in fewer rows',
            self::IdleBridge => 'its bridge joined nothing',
        };
    }
}
