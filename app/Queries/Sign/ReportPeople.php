<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Ruling;
use App\Models\Tally;
use App\Models\User;

/** The people of a report. */
final readonly class ReportPeople
{
    /**
     * Who did what and when, in the order in which it is done; signatures stand on the first page.
     *
     * @param  list<array{act: Ruling, tally: int, about: string, standing: int}>  $acts
     * @return list<array{who: string, what: string, at: \DateTimeInterface}>
     */
    public static function of(Tally $tally, array $acts): array
    {
        $people = [];
        foreach ([$tally->sourceDelivery, $tally->targetDelivery] as $delivery) {
            $people[] = [
                'who' => $delivery->user->name,
                'what' => "handed over {$delivery->side->value} delivery {$delivery->number}",
                'at' => $delivery->delivered_at,
            ];
        }
        $people[] = [
            'who' => User::query()->findOrFail($tally->planVersion->user_id)->name,
            'what' => "made version {$tally->planVersion->number} of the plan",
            'at' => $tally->planVersion->created_at,
        ];
        $people[] = ['who' => $tally->user->name, 'what' => "had tally {$tally->number} made", 'at' => $tally->finished_at];
        $byPerson = [];
        foreach ($acts as ['act' => $act]) {
            $byPerson[$act->user->name][] = $act->created_at;
        }
        foreach ($byPerson as $name => $moments) {
            $people[] = [
                'who' => (string) $name,
                'what' => sprintf(
                    'gave %d %s that %s',
                    count($moments),
                    ...count($moments) === 1 ? ['ruling', 'stands'] : ['rulings', 'stand'],
                ),
                'at' => max($moments),
            ];
        }

        return $people;
    }
}
