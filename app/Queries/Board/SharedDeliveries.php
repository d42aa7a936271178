<?php

declare(strict_types=1);

namespace App\Queries\Board;

use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Migration;
use App\Models\Tally;
use NineTally\Core\Row\Side;

/**
 * Deliveries that several datasets of a migration use, by their newest tallies: the same bytes; or files of the same names that are not,
 * such as an extract that came again for one of them.
 */
final readonly class SharedDeliveries
{
    /** @return list<array{side: Side, byPlace: bool, files: list<string>, tallies: non-empty-list<Tally>}> */
    public function of(Migration $migration): array
    {
        $tallies = [];
        foreach ($migration->datasets()->orderBy('name')->get() as $dataset) {
            $tallies[] = $this->newest($dataset);
        }
        $shared = [];
        foreach (Side::cases() as $side) {
            foreach ($this->groups(array_values(array_filter($tallies)), $side) as $group) {
                if (count($group) > 1) {
                    $deliveries = array_map(static fn(Tally $tally): Delivery => self::delivery($tally, $side), $group);
                    $shared[] = [
                        'side' => $side,
                        'byPlace' => count(array_unique(array_map(static fn(Delivery $of): string => $of->digest, $deliveries))) === 1,
                        'files' => self::files($deliveries[0]),
                        'tallies' => $group,
                    ];
                }
            }
        }

        return $shared;
    }

    /**
     * @param  list<Tally>  $tallies
     * @return array<string, non-empty-list<Tally>> by what their deliveries have in common
     */
    private function groups(array $tallies, Side $side): array
    {
        $byDigest = $byName = [];
        foreach ($tallies as $tally) {
            $byDigest[self::delivery($tally, $side)->digest][] = $tally;
        }
        foreach ($byDigest as $group) {
            foreach ($group as $tally) {
                $byName[implode("\n", self::files(self::delivery($tally, $side)))][] = $tally;
            }
        }

        // Whoever delivers the same file under two names means the same rows.
        return [
            ...array_filter($byName, static fn(array $group): bool => count($group) > 1),
            ...array_filter($byDigest, static fn(array $group): bool => count(array_unique(array_map(
                static fn(Tally $tally): string => implode("\n", self::files(self::delivery($tally, $side))),
                $group,
            ))) > 1),
        ];
    }

    private function newest(Dataset $dataset): ?Tally
    {
        return $dataset->latestTally()?->load(['dataset', 'planVersion', 'run', 'sourceDelivery.parts', 'targetDelivery.parts']);
    }

    private static function delivery(Tally $tally, Side $side): Delivery
    {
        return $side === Side::Source ? $tally->sourceDelivery : $tally->targetDelivery;
    }

    /** @return list<string> */
    private static function files(Delivery $delivery): array
    {
        return array_values($delivery->parts->map(static fn(DeliveryPart $part): string => $part->file_name)->all());
    }
}
