<?php

declare(strict_types=1);

namespace App\Actions\Retention;

use App\Actions\Access\Trail;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\KeptDigests;
use App\Models\Migration;
use App\Models\Pack;
use App\Models\RemovedPack;
use App\Models\SigningTerms;
use App\Models\TrailAct;
use Illuminate\Database\Connection;
use Illuminate\Database\Eloquent\Builder;

/** Removes packs that are older than their migration keeps them. Their digests and seals stay, and a new one can be made. */
final readonly class RemoveOldPacks
{
    public function __construct(
        private Connection $database,
        private BlobStore $blobs,
        private KeptDigests $kept,
        private Trail $trail,
    ) {}

    public function __invoke(): void
    {
        foreach (Migration::query()->with('signingTerms')->get() as $migration) {
            $months = SigningTerms::of($migration)['packMonths'];
            if ($months !== null) {
                $this->enter($migration, $months);
            }
        }
        // Also those that were entered when whoever was at it died.
        foreach (Pack::query()->whereHas('removed')->get() as $pack) {
            $this->blobs->forget($pack->digest, $this->kept->has(...));
        }
    }

    private function enter(Migration $migration, int $months): void
    {
        $this->database->transaction(function () use ($migration, $months): void {
            $packs = Pack::query()
                ->whereHas('tally.dataset', static fn(Builder $of) => $of->where('migration_id', $migration->id))
                ->where('created_at', '<', now()->subMonthsNoOverflow($months))
                ->whereDoesntHave('removed')
                ->orderBy('id')
                ->get();
            foreach ($packs as $pack) {
                RemovedPack::query()->create(['pack_id' => $pack->id]);
            }
            if ($packs->isNotEmpty()) {
                $about = "older than {$months} months: packs {$packs->pluck('id')->implode(', ')}";
                $this->trail->note(TrailAct::RemovedPacks, null, $about, $migration);
            }
        });
    }
}
