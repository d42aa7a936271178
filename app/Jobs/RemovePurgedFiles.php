<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Retention\RemoveFiles;
use App\Models\Purge;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Removes the files of a purge; run again it removes what is left of them. */
final class RemovePurgedFiles implements ShouldQueue
{
    use Queueable;

    public int $tries = 20;

    public int $timeout = 3600;

    /** Seconds before it is tried again. */
    public int $backoff = 60;

    public function __construct(private readonly int $purgeId) {}

    public function handle(RemoveFiles $removeFiles): void
    {
        $purge = Purge::query()->with('delivery')->find($this->purgeId);
        if ($purge !== null) {
            $removeFiles($purge);
        }
    }
}
