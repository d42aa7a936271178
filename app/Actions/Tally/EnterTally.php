<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\Database\FindingTables;
use App\Adapters\Runs\MergedRun;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Pattern;
use App\Models\Run;
use App\Models\RunState;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyName;
use App\Rulings\CarryRulingsOver;
use App\Rulings\FindingGroup;
use Illuminate\Database\Connection;
use NineTally\Core\Comparison\Pattern as CountedPattern;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyCancelled;
use NineTally\Core\Wording\Warning;

/** Enters a finished tally, whole, in one short transaction: before it nothing of the tally is seen, after it everything. */
final readonly class EnterTally
{
    public function __construct(
        private Connection $database,
        private FindingTables $tables,
        private CarryRulingsOver $carryRulingsOver,
        private EnterProofs $enterProofs,
    ) {}

    /**
     * @param  string  $folder  where the files of the findings are
     *
     * @throws TallyCancelled when the run is over meanwhile
     */
    public function __invoke(Run $run, MergedRun $merged, string $folder): Tally
    {
        $tallyId = $run->entering_tally_id ?? throw new \LogicException('Findings are merged for a tally.');
        if (! $run->refresh()->state->isOver()) {
            $this->tables->seal($tallyId);
        }

        return $this->database->transaction(function () use ($run, $tallyId, $merged, $folder): Tally {
            $run =
                Run::query()->whereKey($run->id)->whereIn('state', RunState::goingOn())->lockForUpdate()->first() ??
                throw TallyCancelled::byPerson();
            Dataset::query()->lockForUpdate()->findOrFail($run->dataset_id);
            $this->tables->attach($tallyId);
            $before = $run->dataset->latestTally();
            $summary = $merged->summary;
            $tally = $this->tally($run, $tallyId, $summary);
            if ($run->name !== null) {
                TallyName::query()->create(['tally_id' => $tallyId, 'name' => $run->name, 'user_id' => $run->user_id]);
            }
            $this->patterns($run, $tallyId, $summary);
            $this->standingCounts($tallyId, $summary, $merged->rowsByClass);
            ($this->enterProofs)($tallyId, $summary);
            foreach ($merged->files['places'] ?? [] as $name) {
                $this->tables->load($tallyId, $folder, $name);
            }
            ($this->carryRulingsOver)($tally, $before);
            $run->update(['state' => RunState::Done, 'done' => 1.0, 'tally_id' => $tallyId, 'finished_at' => now()]);

            return $tally;
        });
    }

    private function tally(Run $run, int $tallyId, Summary $summary): Tally
    {
        $figures = $summary->toArray();

        return Tally::query()->create([
            'id' => $tallyId,
            'dataset_id' => $run->dataset_id,
            'number' => ($run->dataset->latestTally()->number ?? 0) + 1,
            'run_id' => $run->id,
            'plan_version_id' => $run->plan_version_id,
            'source_delivery_id' => $run->source_delivery_id,
            'target_delivery_id' => $run->target_delivery_id,
            'summary' => [
                'rows' => $figures['rows'],
                'cells' => $figures['cells'],
                'values' => $summary->values()->toArray(),
                'columns' => $this->columns($summary),
                'figures' => [
                    'rowsArrived' => $summary->rowsArrived()->text(),
                    'cellsAgreeing' => $summary->values()->ofArrived()->text(),
                    'cellsAgreeingOverall' => $summary->values()->agreement()->text(),
                ],
                'warnings' => array_map(static fn(Warning $warning): array => $warning->toArray(), $summary->warnings()),
                'engine' => $figures['engine'],
                'slices' => $this->slices($run, $summary),
                'repeats' => ['source' => $summary->source->repeats(), 'target' => $summary->target->repeats()],
                'agreedByRule' => $summary->source->agreedByRule,
                'agreedWithoutOneKey' => $summary->source->agreedWithoutOneKey,
                'keyForgiven' => $summary->key->forgiven,
                'forgiven' => $this->forgiven($summary),
                // How often, but not with which values: those stand with the prepared side, where they are masked.
                'steps' => array_map(
                    static fn(array $steps): array => array_map(
                        static fn(array $step): array => array_diff_key($step, ['values' => true]),
                        $steps,
                    ),
                    $summary->preparation->steps,
                ),
                'parameters' => $run->parameters,
                // None of this ever changes, so it is kept where it is shown.
                'madeOf' => [
                    'planVersion' => $run->planVersion->number,
                    'sourceDelivery' => $run->sourceDelivery->number,
                    'targetDelivery' => $run->targetDelivery->number,
                    'keyColumns' => $run->planVersion->plan()->keyNames(Side::Source),
                    'startedBy' => $run->user->name,
                    'references' => $this->references($run),
                    'records' => $this->recordDeliveries($run),
                    'matched' => $this->matched($run),
                ],
            ],
            'user_id' => $run->user_id,
            'started_at' => $run->started_at,
            'finished_at' => now(),
        ]);
    }

    /** @return list<array<string, mixed>> the figures of each column pair, with its id */
    private function columns(Summary $summary): array
    {
        return array_map(
            static fn(array $column): array => [
                'pair' => $column['pair']->id,
                'source' => $column['pair']->source,
                'target' => $column['pair']->target,
                ...array_diff_key($column, ['pair' => true]),
                'values' => $column['values']->toArray(),
            ],
            $summary->columns,
        );
    }

    /** @return list<array{name: string, delivery: int}> the number of the delivery of each reference */
    private function references(Run $run): array
    {
        $numbers = Delivery::query()->whereIn('id', array_values($run->reference_deliveries))->pluck('number', 'id');
        $references = [];
        foreach ($run->reference_deliveries as $name => $delivery) {
            $number = $numbers->get($delivery);
            $references[] = ['name' => (string) $name, 'delivery' => is_int($number) ? $number : 0];
        }

        return $references;
    }

    /** @return list<array{name: string, tally: int}> of each dataset whose matched rows numbers were taken from: the number of its tally */
    private function matched(Run $run): array
    {
        $matched = [];
        foreach ($run->matched_tallies as $table => $tally) {
            $matched[] = [
                'name' => AsMatched::datasetOf((string) $table) ?? (string) $table,
                'tally' => Tally::query()->findOrFail($tally)->number,
            ];
        }

        return $matched;
    }

    /** @return list<array{name: string, source: int|null, target: int|null}> the numbers of the deliveries that records were read from */
    private function recordDeliveries(Run $run): array
    {
        $records = [];
        foreach ($run->record_deliveries as $name => $sides) {
            $numbers = Delivery::query()->whereIn('id', array_values($sides))->pluck('number', 'id');
            $of = static fn(string $side): ?int => is_int($number = $numbers->get($sides[$side] ?? 0)) ? $number : null;
            $records[] = ['name' => (string) $name, 'source' => $of('source'), 'target' => $of('target')];
        }

        return $records;
    }

    /** @return list<array<string, string|int>> what a filter says of some rows of a class, and how many they are */
    private function slices(Run $run, Summary $summary): array
    {
        $slices = [];
        foreach ($summary->slices->reasons as $class => $reasons) {
            foreach ($reasons as $reason => $rows) {
                $slices[] = ['class' => $class, 'reason' => $reason, 'rows' => $rows];
            }
        }
        foreach ($summary->slices->bridged as $class => $rows) {
            $slices[] = ['class' => $class, 'bridged' => 'yes', 'rows' => $rows];
        }
        $hasParts = new Sides($run->sourceDelivery->parts()->count() > 1, $run->targetDelivery->parts()->count() > 1);
        foreach ($summary->slices->parts as $class => $sides) {
            foreach ($sides as $side => $parts) {
                if (count($sides) > 1 && $class !== RowClass::Changed->value) {
                    $slices[] = ['class' => $class, 'side' => $side, 'rows' => array_sum($parts)];
                }
                ksort($parts);
                foreach ($hasParts->of(Side::from($side)) ? $parts : [] as $part => $rows) {
                    $slices[] = ['class' => $class, 'side' => $side, 'part' => $part, 'rows' => $rows];
                }
            }
        }

        return $slices;
    }

    /**
     * @return list<array{source: string, target: string, cause: string, facts: array<string, string|int>, cells: int,
     *     examples: list<array{source: string, target: string}>}> what rules let pass, for nothing is forgiven in silence
     */
    private function forgiven(Summary $summary): array
    {
        return array_map(static fn(CountedPattern $pattern): array => [
            'source' => $summary->columns[$pattern->pairPosition]['pair']->source,
            'target' => $summary->columns[$pattern->pairPosition]['pair']->target,
            'cause' => $pattern->cause,
            'facts' => $pattern->facts,
            'cells' => $pattern->cells,
            'examples' => $pattern->examples,
        ], $summary->forgivenPatterns());
    }

    private function patterns(Run $run, int $tallyId, Summary $summary): void
    {
        $pairs = $run->planVersion->plan()->columnPairs;
        $rows = array_map(static fn(CountedPattern $pattern): array => [
            'tally_id' => $tallyId,
            'number' => $pattern->number,
            'pair_position' => $pattern->pairPosition,
            'pair_id' => $pairs[$pattern->pairPosition]->id,
            'source_column' => $pairs[$pattern->pairPosition]->source,
            'target_column' => $pairs[$pattern->pairPosition]->target,
            'class' => $pattern->class->value,
            'cause' => $pattern->cause,
            'facts' => json_encode((object) $pattern->facts, JSON_THROW_ON_ERROR),
            'cells' => $pattern->cells,
            'examples' => json_encode($pattern->examples, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'worth' => $pattern->detail->worth === null ? null : json_encode($pattern->detail->worth->toArray(), JSON_THROW_ON_ERROR),
        ], $summary->findingPatterns());
        foreach (array_chunk($rows, 500) as $some) {
            Pattern::query()->insert($some);
        }
    }

    /** @param array<string, int> $rowsByClass */
    private function standingCounts(int $tallyId, Summary $summary, array $rowsByClass): void
    {
        $counts = [];
        foreach (RowClass::cases() as $class) {
            if ($class->isFinding() && isset($rowsByClass[$class->value])) {
                $counts[] = [
                    'tally_id' => $tallyId,
                    'group' => FindingGroup::ofClass($class)->name(),
                    'findings' => $rowsByClass[$class->value],
                ];
            }
        }
        foreach ($summary->findingPatterns() as $pattern) {
            $counts[] = [
                'tally_id' => $tallyId,
                'group' => FindingGroup::ofPattern($pattern->number)->name(),
                'findings' => $pattern->cells,
            ];
        }
        foreach (array_chunk($counts, 500) as $some) {
            StandingCount::query()->insert($some);
        }
    }
}
