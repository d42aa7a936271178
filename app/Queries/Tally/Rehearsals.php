<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Models\Migration;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyName;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Collection;

/**
 * One rehearsal of a migration held against another, over all its datasets: the tallies of either bear its name. Without a name the newest
 * tally of each dataset stands against the one before it.
 */
final readonly class Rehearsals
{
    private const NAMES = 100;

    /** @return array<string, mixed> */
    public function against(Migration $migration, string $earlier, string $later): array
    {
        $names = $this->names($migration);
        $tallies = $this->tallies($migration, $earlier, $later, $names);
        $datasets = [];
        foreach ($migration->datasets()->orderBy('name')->get(['id', 'name']) as $dataset) {
            $ofDataset = new Collection($tallies[$dataset->id] ?? []);
            $now = $later === '' ? $ofDataset->first() : $this->named($ofDataset, $later, $names);
            $before =
                $earlier === ''
                    ? $ofDataset->first(static fn(Tally $tally): bool => $now !== null && $tally->number < $now->number)
                    : $this->named($ofDataset, $earlier, $names);
            if ($now !== null || $before !== null) {
                $datasets[] = [
                    'id' => $dataset->id,
                    'dataset' => $dataset->name,
                    'earlier' => $before === null ? null : $this->told($before),
                    'later' => $now === null ? null : $this->told($now),
                    'verdict' => $before === null || $now === null ? null : $this->verdict($before, $now),
                ];
            }
        }
        $known = [];
        foreach ($names->sortByDesc('id') as $entry) {
            $known[$entry->name] ??= ['name' => $entry->name, 'tallies' => 0, 'at' => $entry->created_at->toIso8601ZuluString()];
            $known[$entry->name]['tallies']++;
        }

        return [
            'names' => array_slice(array_values($known), 0, self::NAMES),
            'earlier' => $earlier,
            'later' => $later,
            'datasets' => $datasets,
        ];
    }

    /** @return Collection<int, TallyName> what each tally is called now, by tally */
    private function names(Migration $migration): Collection
    {
        return TallyName::query()
            ->whereIn('tally_id', Tally::query()->whereIn('dataset_id', $migration->datasets()->select('id'))->select('id'))
            ->orderBy('id')
            ->get()
            ->keyBy('tally_id')
            ->filter(static fn(TallyName $entry): bool => $entry->name !== '');
    }

    /**
     * Of each dataset the tallies that bear either name, and its last two, the newest first.
     *
     * @param  Collection<int, TallyName>  $names
     * @return array<int, list<Tally>> by dataset
     */
    private function tallies(Migration $migration, string $earlier, string $later, Collection $names): array
    {
        $wanted = $names->filter(static fn(TallyName $entry): bool => in_array($entry->name, [$earlier, $later], true))->keys()->all();

        $tallies = Tally::query()
            ->whereIn('dataset_id', $migration->datasets()->select('id'))
            ->where(static function (Builder $query) use ($wanted): void {
                $query->whereIn('id', $wanted)->orWhereRaw(
                    'number > (SELECT max(newest.number) - 2 FROM tallies newest WHERE newest.dataset_id = tallies.dataset_id)',
                );
            })
            ->with('standingCounts')
            ->orderByDesc('number')
            ->get();
        $byDataset = [];
        foreach ($tallies as $tally) {
            $byDataset[$tally->dataset_id][] = $tally;
        }

        return $byDataset;
    }

    /**
     * @param  Collection<int, Tally>  $tallies
     * @param  Collection<int, TallyName>  $names
     */
    private function named(Collection $tallies, string $name, Collection $names): ?Tally
    {
        return $tallies->first(static fn(Tally $tally): bool => $names->get($tally->id)?->name === $name);
    }

    /** @return array<string, mixed> */
    private function told(Tally $tally): array
    {
        return [
            'id' => $tally->id,
            'number' => $tally->number,
            'agreement' => $tally->summary['figures']['cellsAgreeingOverall'],
            'rowsArrived' => $tally->summary['figures']['rowsArrived'],
            'findings' => $tally->standingCounts->sum(static fn(StandingCount $count): int => $count->findings),
            'openFindings' => $tally->standingCounts->sum(static fn(StandingCount $count): int => $count->open()),
            'finishedAt' => $tally->finished_at->toIso8601ZuluString(),
        ];
    }

    /** Exact counts decide, for percentages are rounded. */
    private function verdict(Tally $before, Tally $now): string
    {
        [$was, $is] = [$before->summary['values'] ?? null, $now->summary['values'] ?? null];
        $findings = static fn(Tally $tally): int => $tally->standingCounts->sum(
            static fn(StandingCount $count): int => $count->findings,
        );
        $better = $was === null || $is === null ? 0 : $is['right'] * $was['values'] <=> $was['right'] * $is['values'];
        $better = $better !== 0 ? $better : $findings($before) <=> $findings($now);

        return ['worse', 'same', 'better'][$better + 1];
    }
}
