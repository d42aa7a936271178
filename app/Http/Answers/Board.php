<?php

declare(strict_types=1);

namespace App\Http\Answers;

use App\Adapters\Database\DatabaseRow;
use App\Http\Resources\MigrationResource;
use App\Http\Resources\TallyResource;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\Tally;
use App\Models\User;
use App\Policies\Act;
use App\Queries\Board\LookedUp;
use App\Signing\HeldLimits;
use App\Signing\SigningBlocks;
use App\Signing\SigningWords;
use App\Signing\SignOff;
use Illuminate\Database\Connection;
use Illuminate\Support\Collection;
use NineTally\Core\Figures\Percentage;

/** All datasets of a migration with their latest tally. The number of queries does not grow with the datasets. */
final readonly class Board
{
    private const TALLIES_OF_CURVE = 12;

    public function __construct(private HeldLimits $limits, private Connection $database) {}

    /** @return array<string, mixed> */
    public function __invoke(Migration $migration, User $person): array
    {
        $datasets = $migration->datasets()->with('draft')->orderBy('name')->get();
        $latest = $this->latestTallies($datasets);
        $lookedUp = LookedUp::among($datasets);
        $curves = $this->curves($datasets);

        return [
            'migration' => MigrationResource::make($migration)->resolve(),
            'mayWork' => $person->can('act', [$migration, Act::Work]),
            'mayAudit' => $person->can('act', [$migration, Act::Audit]),
            'sums' => $this->sums($latest),
            'datasets' => $datasets->map(fn(Dataset $dataset): array => [
                'id' => $dataset->id,
                'name' => $dataset->name,
                'keyColumns' => $dataset->draft?->keyNames() ?? [],
                'isReference' => $lookedUp->has($dataset) && ! $latest->has($dataset->id),
                'tally' => $latest->has($dataset->id) ? TallyResource::make($latest->get($dataset->id))->resolve() : null,
                'curve' => $curves[$dataset->id] ?? [],
                'signing' => ($tally = $latest->get($dataset->id)) === null ? null : $this->signing($tally),
            ])->all(),
        ];
    }

    /**
     * @return array{state: string, next: string|null, nextRole: string|null, verdict: string, limits: int, fails: int, waived: int,
     *     blocked: list<array{words: string, link: string}>}
     */
    private function signing(Tally $tally): array
    {
        $signOff = SignOff::of($tally);
        $limits = $this->limits->of($tally);
        ['all' => $all, 'failing' => $fails, 'waived' => $waived] = SigningWords::counts($limits);

        return [
            'state' => $signOff->state->value,
            'next' => $signOff->next()?->value,
            'nextRole' => $signOff->next()?->role()?->label(),
            'verdict' => SigningWords::limits($limits),
            'limits' => $all,
            'fails' => $fails,
            'waived' => $waived,
            'blocked' => array_map(
                static fn(array $block): array => ['words' => $block['words'], 'link' => $block['link']],
                $signOff->next() === null ? [] : SigningBlocks::whatever($tally),
            ),
        ];
    }

    /**
     * How the agreement went over the newest tallies of each dataset, the oldest of them first.
     *
     * @param  Collection<int, Dataset>  $datasets
     * @return array<int, list<array{number: int, right: int, values: int, agreement: string}>>
     */
    private function curves(Collection $datasets): array
    {
        $curves = [];
        foreach (
            DatabaseRow::all($this->database, <<<'SQL'
                SELECT dataset_id, number, (summary->'values'->>'right')::bigint AS right, (summary->'values'->>'values')::bigint AS of
                FROM (SELECT *, row_number() OVER (PARTITION BY dataset_id ORDER BY number DESC) AS age FROM tallies) t
                WHERE age <= ? AND dataset_id = ANY (?::bigint[]) AND summary->'values' IS NOT NULL
                ORDER BY dataset_id, number
                SQL, [self::TALLIES_OF_CURVE, '{'.$datasets->pluck('id')->implode(',').'}']) as $row
        ) {
            [$right, $values] = [$row->int('right'), $row->int('of')];
            $curves[$row->int('dataset_id')][] = [
                'number' => $row->int('number'),
                'right' => $right,
                'values' => $values,
                'agreement' => (new Percentage($right, $values))->text(),
            ];
        }

        return $curves;
    }

    /**
     * @param  Collection<int, Dataset>  $datasets
     * @return Collection<int, Tally> by dataset
     */
    private function latestTallies(Collection $datasets): Collection
    {
        $ids = Tally::query()
            ->whereIn('dataset_id', $datasets->pluck('id'))
            ->groupBy('dataset_id')
            ->selectRaw('max(id) AS id')
            ->pluck('id');

        return Tally::query()
            ->whereIn('id', $ids)
            ->with(['carryOver.from', 'name', ...HeldLimits::RELATIONS])
            ->get()
            ->keyBy('dataset_id');
    }

    /**
     * @param  Collection<int, Tally>  $tallies
     * @return array{values: int, right: int, agreement: string, openFindings: int, openGroups: int}
     */
    private function sums(Collection $tallies): array
    {
        $values = (int) $tallies->sum(
            static fn(Tally $tally): int => $tally->summary['values']['values'] ?? $tally->summary['cells']['compared'],
        );
        $right = (int) $tallies->sum(
            static fn(Tally $tally): int => $tally->summary['values']['right'] ??
                $tally->summary['cells']['identical'] + $tally->summary['cells']['forgiven'],
        );
        $standings = $tallies->flatMap(static fn(Tally $tally) => $tally->standingCounts);

        return [
            'values' => $values,
            'right' => $right,
            'agreement' => (new Percentage($right, $values))->text(),
            'openFindings' => (int) $standings->sum(static fn($count): int => $count->open()),
            'openGroups' => $standings->filter(static fn($count): bool => $count->open() > 0)->count(),
        ];
    }
}
