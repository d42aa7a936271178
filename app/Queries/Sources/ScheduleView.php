<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Models\Dataset;
use App\Models\Draw;
use App\Models\DrawState;
use App\Models\Migration;
use App\Models\Schedule;
use Carbon\CarbonImmutable;
use Illuminate\Database\Eloquent\Builder;

/** When what is drawn, and what became of what was. */
final readonly class ScheduleView
{
    private const NEXT = 5;

    private const PAST = 30;

    public function __construct(private DrawnQueries $queries, private InPlaceQuestions $questions) {}

    /** @return array<string, mixed> */
    public function ofDataset(Dataset $dataset): array
    {
        $schedule = Schedule::query()->with('user')->find($dataset->id);

        return [
            'draws' => array_map(
                static fn(string $side, array $parts): array => [
                    'side' => $side,
                    'sources' => array_values(array_unique(array_map(static fn(array $part): string => $part['query']['source'], $parts))),
                ],
                array_keys($queries = $this->queries->of($dataset)),
                $queries,
            ),
            // Why both databases cannot be asked first; null where they can.
            'notInPlace' => $this->questions->hindrance($dataset),
            'schedule' => $schedule === null ? null : $this->told($schedule),
            'past' => $this->past(Draw::query()->where('dataset_id', $dataset->id)),
        ];
    }

    /** @return array<string, mixed> of a migration: the next times of all its datasets in their order, and what was drawn last */
    public function ofMigration(Migration $migration): array
    {
        $datasets = $migration->datasets()->pluck('name', 'id');
        $next = [];
        foreach (Schedule::query()->with('user')->whereIn('dataset_id', $datasets->keys())->get() as $schedule) {
            foreach ($schedule->next(self::NEXT, CarbonImmutable::now()) as $at) {
                $next[] = [
                    'dataset' => ['id' => $schedule->dataset_id, 'name' => $datasets[$schedule->dataset_id] ?? ''],
                    'at' => $at->toIso8601ZuluString(),
                    'zone' => $schedule->zone,
                ];
            }
        }
        usort(
            $next,
            static fn(array $one, array $other): int => [$one['at'], $one['dataset']['name']] <=> [$other['at'], $other['dataset']['name']],
        );

        return [
            'draws' => array_map(
                static fn(Dataset $dataset): array => ['id' => $dataset->id, 'name' => $dataset->name],
                $this->drawn($migration),
            ),
            'next' => array_slice($next, 0, self::PAST),
            'past' => $this->past(Draw::query()->whereIn('dataset_id', $datasets->keys())),
        ];
    }

    /** @return list<Dataset> those of which at least one side can be drawn, by name */
    public function drawn(Migration $migration): array
    {
        return array_values(array_filter(
            $migration->datasets()->with('migration')->orderBy('name')->get()->all(),
            fn(Dataset $dataset): bool => $this->queries->of($dataset) !== [],
        ));
    }

    /** @return array<string, mixed> */
    private function told(Schedule $schedule): array
    {
        return [
            'expression' => $schedule->expression,
            'onArrival' => $schedule->on_arrival,
            'inPlace' => $schedule->in_place,
            'mostApart' => $schedule->most_apart,
            'zone' => $schedule->zone,
            'isOn' => $schedule->is_on,
            'by' => $schedule->user->name,
            'next' => array_map(
                static fn(CarbonImmutable $at): string => $at->toIso8601ZuluString(),
                $schedule->next(self::NEXT, CarbonImmutable::now()),
            ),
        ];
    }

    /**
     * @param  Builder<Draw>  $draws
     * @return list<array<string, mixed>> the newest first
     */
    private function past(Builder $draws): array
    {
        return array_values($draws
            ->with(['dataset', 'user'])
            // Of those that found nothing new the newest says it for all of a dataset.
            ->where(static fn(Builder $told): Builder => $told
                ->whereNotNull('run_id')
                ->orWhere('state', '<>', DrawState::Done->value)
                ->orWhereIn('id', Draw::query()->selectRaw('max(id)')->groupBy('dataset_id')))
            ->orderByDesc('id')
            ->limit(self::PAST)
            ->get()
            ->map(static fn(Draw $draw): array => [
                'id' => $draw->id,
                'dataset' => ['id' => $draw->dataset_id, 'name' => $draw->dataset->name],
                'dueAt' => $draw->due_at?->toIso8601ZuluString(),
                'beganAt' => $draw->created_at->toIso8601ZuluString(),
                'state' => $draw->state->value,
                'by' => $draw->user->name,
                'log' => $draw->log,
            ])
            ->all());
    }
}
