<?php

declare(strict_types=1);

namespace App\Actions\Retention;

use App\Actions\Access\Trail;
use App\Models\TrailAct;
use App\Models\TrailDetail;
use Carbon\CarbonImmutable;

/**
 * Purges what old entries of the trail say in words, and the network addresses that they came from. Who, what and when stay in the entry,
 * and with the digest of its words the chain holds. Nobody who is served can do it: it takes the owner of the tables.
 */
final readonly class PurgeTrailWords
{
    public function __construct(private Trail $trail) {}

    /** @return int entries whose words are gone */
    public function __invoke(CarbonImmutable $before): int
    {
        $purged = TrailDetail::on('owner')
            ->whereIn('entry_id', static fn(\Illuminate\Database\Query\Builder $old) => $old
                ->select('id')
                ->from('trail_entries')
                ->where('created_at', '<', $before))
            ->delete();
        $count = is_int($purged) ? $purged : 0;
        $this->trail->note(TrailAct::Purged, null, "words of {$count} entries before {$before->format('Y-m-d')}");

        return $count;
    }
}
