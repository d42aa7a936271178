<?php

declare(strict_types=1);

namespace App\Models;

enum RunState: string
{
    case Queued = 'queued';
    case Reading = 'reading';
    case Matching = 'matching';
    case Merging = 'merging';
    case Loading = 'loading';
    case Done = 'done';
    case Failed = 'failed';
    case Cancelled = 'cancelled';

    public function isOver(): bool
    {
        return in_array($this, [self::Done, self::Failed, self::Cancelled], true);
    }

    /** @return list<string> */
    public static function goingOn(): array
    {
        return array_values(
            array_map(
                static fn(self $state): string => $state->value,
                array_filter(self::cases(), static fn(self $state): bool => ! $state->isOver()),
            ),
        );
    }
}
