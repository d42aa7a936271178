<?php

declare(strict_types=1);

namespace App\Queries\Retention;

use App\Models\Delivery;
use App\Models\Migration;
use App\Models\Purge;
use App\Models\SigningTerms;
use Illuminate\Support\Collection;

/** What of a migration is kept, since when, and what its rule says of it. */
final readonly class DueContent
{
    public function __construct(private PurgeReach $reach) {}

    public function isDue(Migration $migration, Delivery $delivery): bool
    {
        $due = $this->dueOn($migration, $delivery);

        return $due !== null && $due <= now();
    }

    /** @return list<array<string, mixed>> deliveries of all datasets, the oldest first */
    public function of(Migration $migration): array
    {
        return array_values(
            $this->deliveries($migration)
                ->map(fn(Delivery $delivery): array => [
                    'id' => $delivery->id,
                    'datasetId' => $delivery->dataset_id,
                    'dataset' => $delivery->dataset->name,
                    'side' => $delivery->side->value,
                    'number' => $delivery->number,
                    'fileName' => $delivery->file_name,
                    'bytes' => $delivery->bytes,
                    'rows' => $delivery->delivered_count,
                    'deliveredAt' => $delivery->delivered_at->toIso8601ZuluString(),
                    'dueOn' => $this->dueOn($migration, $delivery)?->format('Y-m-d'),
                    'isDue' => $this->isDue($migration, $delivery),
                    'purge' => $delivery->purge === null ? null : self::shown($delivery->purge),
                ])
                ->all(),
        );
    }

    /**
     * @param  list<int>  $deliveries  ids
     * @return array<string, mixed> what goes with them, and what stays
     */
    public function before(array $deliveries): array
    {
        $tallies = $this->reach->tallies($deliveries);
        $goes = array_filter($this->reach->plans($deliveries), static fn(array $plan): bool => $plan['goes']);

        return [
            'removed' => $this->reach->counts(
                $deliveries,
                array_column($tallies, 'id'),
                array_sum(array_column($goes, 'values')),
            ),
            'tallies' => $tallies,
            'stays' => $this->reach->stays($deliveries),
        ];
    }

    private function dueOn(Migration $migration, Delivery $delivery): ?\DateTimeInterface
    {
        $months = SigningTerms::of($migration)['contentMonths'];

        return $months === null ? null : $delivery->delivered_at->addMonthsNoOverflow($months);
    }

    /** @return Collection<int, Delivery> */
    private function deliveries(Migration $migration): Collection
    {
        return Delivery::query()
            ->whereIn('dataset_id', $migration->datasets()->select('id'))
            ->with(['dataset', 'purge.user', 'purge.end'])
            ->orderBy('delivered_at')
            ->orderBy('id')
            ->get();
    }

    /** @return array<string, mixed> */
    private static function shown(Purge $purge): array
    {
        return [
            ...$purge->told(),
            'wasDue' => $purge->was_due,
            'removed' => $purge->removed,
            'isOver' => $purge->end !== null,
        ];
    }
}
