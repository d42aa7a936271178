<?php

declare(strict_types=1);

namespace App\Problems;

use App\Models\PlanDraft;

/** Somebody else has saved the draft since it was seen: nothing of it is overwritten. */
final class DraftChanged extends \RuntimeException
{
    public static function since(int $seen, PlanDraft $now): self
    {
        return new self(
            sprintf(
                'The draft of the plan is number %d by now, saved by %s; you changed number %d. Nothing was saved. '.
                'Load it again, or join both '.
                    '(draft-joins).',
                $now->number,
                $now->user->name ?? 'nobody',
                $seen,
            ),
        );
    }
}
