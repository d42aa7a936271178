<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Pattern;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Queries\Review\Mask;
use App\Queries\Tally\OutOfDate;
use App\Rulings\FindingGroup;
use App\Rulings\GroupKind;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use NineTally\Core\Cause\CauseId;

/** @property Tally $resource */
final class TallyResource extends JsonResource
{
    public static $wrap = null;

    /** Null where patterns are not shown. */
    private ?Mask $mask = null;

    /** @param Mask $mask over the values that patterns have as examples */
    public function withPatterns(Mask $mask): self
    {
        $this->mask = $mask;

        return $this;
    }

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $tally = $this->resource;
        $standings = $tally->standingCounts->keyBy('group');

        return [
            'id' => $tally->id,
            'datasetId' => $tally->dataset_id,
            'number' => $tally->number,
            'name' => $tally->name->name ?? '',
            'remark' => $tally->name->remark ?? '',
            ...['matched' => (new OutOfDate)->matched($tally)] + $tally->summary['madeOf'] + ['references' => [], 'records' => []],
            'parameters' => $this->parameters(),
            'purge' => $tally->loadMissing('purged.purge.user')->purged?->purge->told(),
            'startedAt' => $tally->started_at->toIso8601ZuluString(),
            'finishedAt' => $tally->finished_at->toIso8601ZuluString(),
            'rows' => $tally->summary['rows'],
            'cells' => $tally->summary['cells'],
            'figures' => [
                'rowsArrived' => $tally->summary['figures']['rowsArrived'],
                'agreement' => $tally->summary['figures']['cellsAgreeingOverall'],
                'ofArrived' => $tally->summary['figures']['cellsAgreeing'],
            ],
            'values' => isset($tally->summary['values']) ? Tally::valueFigures($tally->summary['values']) : null,
            'columns' => $this->mask === null ? [] : $this->columns(),
            'warnings' => $this->mask === null
                ? []
                : [...(new OutOfDate)->sentences($tally), ...$this->mask->warnings($tally->summary['warnings'])],
            'openGroups' => $standings->filter(static fn(StandingCount $count): bool => $count->open() > 0)->count(),
            'openFindings' => $standings->sum(static fn(StandingCount $count): int => $count->open()),
            'findings' => $standings->sum(static fn(StandingCount $count): int => $count->findings),
            'totals' => $this->totals(),
            'rulings' => [
                'expected' => $standings->sum(static fn(StandingCount $count): int => $count->expected),
                'defect' => $standings->sum(static fn(StandingCount $count): int => $count->defect),
                'ask' => $standings->sum(static fn(StandingCount $count): int => $count->ask),
                'open' => $standings->sum(static fn(StandingCount $count): int => $count->open()),
            ],
            'classes' => $standings
                ->filter(static fn(StandingCount $count): bool => $count->group()->kind === GroupKind::RowClass)
                ->map(fn(StandingCount $count): array => ['class' => $count->group()->value, 'standing' => $this->standing($count)])
                ->values()
                ->all(),
            // Tallies made before they were told apart have none.
            'repeats' => isset($tally->summary['repeats']) ? array_map(Tally::repeatFigures(...), $tally->summary['repeats']) : null,
            'rowLists' => $this->rowLists(),
            'carryOver' =>
                $tally->carryOver === null
                    ? null
                    : [
                        'from' => $tally->carryOver->from->number,
                        'ruled' => $tally->carryOver->ruled,
                        'carried' => $tally->carryOver->carried,
                        'changed' => $tally->carryOver->changed,
                        'beyond' => $tally->carryOver->beyond,
                        'takenOn' => $tally->carryOver->taken_on,
                        'gone' => $tally->carryOver->gone(),
                        'settledBy' => $tally->carryOver->settledBy($tally),
                        'hasOtherKey' => $tally->carryOver->has_other_key,
                    ],
            'forgiven' => $this->mask === null ? [] : $this->forgiven($this->mask),
            'patterns' => $this->mask === null ? [] : $this->patterns($this->mask),
        ];
    }

    /** @return array{all: int, differing: int, most: array{number: int, name: string}|null} most: the one that differs most */
    private function totals(): array
    {
        $differing = $this->resource->totals->where('differs', true);
        $most = $differing->sortByDesc(static fn(TallyTotal $total): float => $total->partThatDiffers())->first();

        return [
            'all' => $this->resource->totals->count(),
            'differing' => $differing->count(),
            'most' => $most === null ? null : ['number' => $most->number, 'name' => $most->total()->sentence()],
        ];
    }

    /**
     * @return list<array{class: string|null, rows: int, slices: list<array{filter: array<string, string|int>, words: string, rows: int}>}>
     *     what can be listed: all rows that do not agree, then the rows of each class that has some, and how they divide
     */
    private function rowLists(): array
    {
        ['source' => $source, 'target' => $target] = $this->resource->summary['rows'];
        // In lists of tallies they are not shown.
        $slices = $this->mask === null ? [] : $this->resource->slices();
        $lists = array_filter([
            'missing' => $source['missing'] ?? 0,
            'extra' => $target['extra'] ?? 0,
            'repeated' => $source['repeated'] + $target['repeated'],
            'unkeyed' => $source['unkeyed'] + $target['unkeyed'],
            'refused' => $source['refused'] + $target['refused'],
            // A changed row stands on both sides and is listed once.
            'changed' => $source['changed'],
        ]);

        return [
            ['class' => null, 'rows' => array_sum($lists), 'slices' => []],
            ...array_map(
                static fn(string $class, int $rows): array => ['class' => $class, 'rows' => $rows, 'slices' => $slices[$class] ?? []],
                array_keys($lists),
                array_values($lists),
            ),
        ];
    }

    /** @return list<array{name: string, value: string}> */
    private function parameters(): array
    {
        $parameters = $this->resource->summary['parameters'] ?? [];

        return array_map(
            static fn(string $name, string $value): array => ['name' => $name, 'value' => $value],
            array_keys($parameters),
            array_values($parameters),
        );
    }

    /** @return list<array<string, mixed>> */
    private function columns(): array
    {
        return array_map(
            static fn(array $column): array => ['values' => Tally::valueFigures($column['values'])] + $column,
            $this->resource->figuresByColumn(),
        );
    }

    /** @return list<array<string, mixed>> */
    private function forgiven(Mask $mask): array
    {
        $patterns = $this->resource->forgiven();

        return array_map(
            static fn(int $place, array $pattern): array => ['number' => $place + 1] +
                ($mask->hides($pattern['source']) ? ['examples' => []] + $pattern : $pattern),
            array_keys($patterns),
            $patterns,
        );
    }

    /** @return list<array<string, mixed>> most cells first */
    private function patterns(Mask $mask): array
    {
        $standings = $this->resource->standingCounts->keyBy('group');

        return array_values($this->resource->patterns->sortBy([['cells', 'desc'], ['number', 'asc']])->map(fn(Pattern $pattern): array => [
            'number' => $pattern->number,
            'pair' => $pattern->pair_id,
            'source' => $pattern->source_column,
            'target' => $pattern->target_column,
            'class' => $pattern->class->value,
            'cause' => $pattern->cause,
            'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
            'cells' => $pattern->cells,
            'examples' => $mask->hides($pattern->source_column) ? [] : $pattern->examples,
            'standing' => $this->standing($standings->get(FindingGroup::ofPattern($pattern->number)->name())),
        ])->all());
    }

    /** @return array{findings: int, open: int, expected: int, defect: int, ask: int} */
    private function standing(?StandingCount $count): array
    {
        return $count === null
            ? ['findings' => 0, 'open' => 0, 'expected' => 0, 'defect' => 0, 'ask' => 0]
            : [
                'findings' => $count->findings,
                'open' => $count->open(),
                'expected' => $count->expected,
                'defect' => $count->defect,
                'ask' => $count->ask,
            ];
    }
}
