<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Adapters\Deliveries\MatchedTable;
use App\Models\Tally;

/** Whether a tally took numbers from what another dataset matched in a tally that is not its newest any more. */
final readonly class OutOfDate
{
    /** @return list<array{name: string, tally: int, newest: int}> the numbers of the tally that was used, and of the newest */
    public function matched(Tally $tally): array
    {
        return array_map(static function (array $used) use ($tally): array {
            $newest = MatchedTable::datasetNamed($tally->dataset, $used['name'])?->latestTally();

            return $used + ['newest' => max($used['tally'], $newest->number ?? 0)];
        }, $tally->summary['madeOf']['matched'] ?? []);
    }

    /** @return list<string> one sentence for each that is out of date */
    public function sentences(Tally $tally): array
    {
        return array_values(array_map(
            static fn(array $used): string => sprintf(
                'This tally is out of date: it took what %s matched from tally %d of it, and %s has tally %d by now. Tally again.',
                $used['name'],
                $used['tally'],
                $used['name'],
                $used['newest'],
            ),
            array_filter($this->matched($tally), static fn(array $used): bool => $used['newest'] > $used['tally']),
        ));
    }
}
