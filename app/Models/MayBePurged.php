<?php

declare(strict_types=1);

namespace App\Models;

use App\Problems\ContentPurged;
use Illuminate\Database\Eloquent\Relations\HasOne;
use Illuminate\Database\Query\Builder;

/** That the findings of a tally may be gone, and what asks for them is told so. */
trait MayBePurged
{
    /** @return HasOne<PurgedTally, $this> that its content is gone */
    public function purged(): HasOne
    {
        return $this->hasOne(PurgedTally::class);
    }

    /** @throws ContentPurged when its findings are gone */
    public function mustHaveContent(): void
    {
        $purged = $this->purged()->with('purge.user')->first();
        if ($purged !== null) {
            throw ContentPurged::of(
                "tally {$this->number} of {$this->dataset->name}",
                $purged->purge,
                'Its figures, rulings and signatures stay.',
            );
        }
    }

    /** @throws ContentPurged when one of the deliveries that its values were held against is gone: so are the lists of them */
    public function mustHaveRecords(): void
    {
        $purge = Purge::query()
            ->whereIn('delivery_id', fn(Builder $read) => $read
                ->select('delivery_id')
                ->from('run_deliveries')
                ->where(['run_id' => $this->run_id, 'how' => 'records']))
            ->first();
        $purge?->delivery->mustHaveContent();
    }

    /**
     * Asked in the transaction that keeps what took long to make: nothing is kept of what was purged meanwhile.
     *
     * @param  bool  $wasPurged  when it was begun
     *
     * @throws ContentPurged
     */
    public function mustNotBePurgedSince(bool $wasPurged): void
    {
        Dataset::query()->sharedLock()->findOrFail($this->dataset_id);
        $wasPurged || $this->mustHaveContent();
    }
}
