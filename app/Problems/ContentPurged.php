<?php

declare(strict_types=1);

namespace App\Problems;

use App\Models\Purge;
use NineTally\Core\NineTallyException;

/** Somebody asked for what was purged. The message says by whom, when and why, and what is still there. */
final class ContentPurged extends \RuntimeException implements NineTallyException
{
    public static function of(string $what, Purge $purge, string $instead): self
    {
        return new self(sprintf(
            'The content of %s was purged by %s on %s: %s. %s',
            $what,
            $purge->user->name,
            $purge->created_at->format('j M Y'),
            rtrim($purge->reason, '.'),
            $instead,
        ));
    }

    public function code(): string
    {
        return 'content-purged';
    }
}
