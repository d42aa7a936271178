<?php

declare(strict_types=1);

namespace App\Actions\Sources;

use App\Actions\Access\Trail;
use App\Models\Dataset;
use App\Models\Schedule;
use App\Models\TrailAct;
use App\Models\User;
use Carbon\CarbonImmutable;

/** Keeps when a dataset is drawn and tallied by itself, in the name of whoever keeps it. */
final readonly class KeepSchedule
{
    public function __construct(private Trail $trail) {}

    /**
     * @param  array{expression: string|null, zone: string, on_arrival: bool, in_place: bool, most_apart: int|null,
     *     is_on: bool}  $schedule
     */
    public function __invoke(Dataset $dataset, array $schedule, User $person): void
    {
        $dataset->getConnection()->transaction(function () use ($dataset, $schedule, $person): void {
            Schedule::query()->updateOrCreate(['dataset_id' => $dataset->id], [
                ...$schedule,
                // Times before now are not made up, nor is what has arrived before.
                'considered_at' => CarbonImmutable::now(),
                'user_id' => $person->id,
            ]);
            $when = array_filter([$schedule['expression'], $schedule['on_arrival'] ? 'when both sides have arrived' : null]);
            $about = "{$dataset->name}: ".implode(', ', $when)." ({$schedule['zone']}), ".($schedule['is_on'] ? 'on' : 'off');
            $this->trail->note(TrailAct::KeptSchedule, $person, $about, $dataset->migration);
        });
    }
}
