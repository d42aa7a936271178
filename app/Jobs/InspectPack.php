<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Sign\ReceivePack;
use App\Models\PackInspection;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\Seal\CheckLine;
use NineTally\Core\Seal\PackCheck;

/** Checks a pack that was sent here. Its bytes are gone afterwards, whatever was found. */
final class InspectPack implements ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    public int $timeout = 3600;

    public function __construct(private readonly string $inspectionId) {}

    public function handle(ReceivePack $packs): void
    {
        $inspection = PackInspection::query()->where('state', 'checking')->find($this->inspectionId);
        if ($inspection === null) {
            return;
        }
        $checked = PackCheck::of($packs->path($inspection), $inspection->key);
        $inspection->update(['state' => 'done', 'found' => [
            'fits' => $checked->fits(),
            'key' => $checked->fingerprint,
            'lines' => array_map(
                static fn(CheckLine $line): array => ['state' => $line->state, 'about' => $line->about, 'words' => $line->words],
                array_slice($checked->lines, 0, PackInspection::MOST_LINES),
            ),
        ]]);
        @unlink($packs->path($inspection));
    }

    public function failed(): void
    {
        PackInspection::query()->whereKey($this->inspectionId)->where('state', '!=', 'done')->update(['state' => 'failed']);
    }
}
