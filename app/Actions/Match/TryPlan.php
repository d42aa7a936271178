<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Storage\TrialSamples;
use App\Models\Dataset;
use App\Models\Tally;
use App\Queries\Review\SideMask;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\KeySample;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Intake\InMemoryReader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\KeyColumn;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Summary;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Core\Tally\Workspace;
use NineTally\Core\Totals\TotalReport;
use NineTally\Core\Wording\Sentences;
use NineTally\Core\Wording\Warning;
use NineTally\Core\Wording\WarningKind;

/**
 * What the draft would find, on the rows of some keys: computed anew after each change, for it takes less than a second. Until these
 * rows are drawn it is the beginning of both sides, which says less, for other rows may stand there.
 *
 * @phpstan-import-type Sample from TrialSamples
 */
final readonly class TryPlan
{
    private const HEAD_ROWS = 2_000;

    private const FINDINGS = 200;

    /** What only all rows can say. */
    private const OF_ALL_ROWS = [WarningKind::IdleBridge, WarningKind::IdleChoice, WarningKind::ReopenedChoice];

    public function __construct(private Answers $answers, private TrialSamples $samples, private DeliverySample $deliverySample) {}

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    public function __invoke(Dataset $dataset, Sides $masks): array
    {
        $sides = BothSides::of($dataset);
        $draft = $dataset->draftNow();
        if ($sides === null || $draft === null || $draft->document['key'] === []) {
            return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'result' => null];
        }
        $json = CanonicalJson::of($draft->document);
        try {
            $plan = Plan::fromJson($json);
            $question = new KeySample($sides, $json);
            $answer = $this->answers->to($question);
            $sample = $answer->content === null ? null : $this->samples->held($this->answers->digest($question));
            if ($answer->content !== null && $sample === null) {
                // The rows were cleared up; they are drawn again.
                $answer->delete();
                $answer = $this->answers->to($question);
            }

            return [
                ...$answer->progress(),
                'result' => $this->compared(
                    $dataset,
                    $plan,
                    $sample ?? $this->head($sides),
                    $sample === null ? null : $answer->content['oneIn'] ?? null,
                    $masks,
                ),
            ];
        } catch (NineTallyException $problem) {
            return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => $problem->getMessage(), 'result' => null];
        }
    }

    /** @return Sample */
    private function head(BothSides $sides): array
    {
        return [
            'source' => $this->deliverySample->head($sides->delivery(Side::Source), $sides->rules(Side::Source), self::HEAD_ROWS),
            'target' => $this->deliverySample->head($sides->delivery(Side::Target), $sides->rules(Side::Target), self::HEAD_ROWS),
        ];
    }

    /**
     * @param  Sample  $sample
     * @param  Sides<SideMask>  $masks
     * @param  mixed  $oneIn  of so many keys one is in the sample; null where it is the beginning of both sides
     * @return array<string, mixed>
     */
    private function compared(Dataset $dataset, Plan $plan, array $sample, mixed $oneIn, Sides $masks): array
    {
        $workspace = Workspace::make();
        try {
            $findings = (new TallyRun(
                $plan,
                new Sides(
                    new InMemoryReader($dataset->migration->source_label, $sample['source']['columns'], $sample['source']['rows']),
                    new InMemoryReader($dataset->migration->target_label, $sample['target']['columns'], $sample['target']['rows']),
                ),
                $workspace->path,
                settings: new TallySettings(partitions: 1, triesSideBySide: false),
            ))->findings();
            $shown = [];
            foreach ($findings as $finding) {
                if (count($shown) < self::FINDINGS && $finding->sequence > 0) {
                    $shown[] = $this->finding($finding, $plan, $masks);
                }
            }

            return $this->figures($findings->getReturn(), $oneIn === 1) + [
                'sampleRows' => ['source' => count($sample['source']['rows']), 'target' => count($sample['target']['rows'])],
                'notCompared' => Sides::each(
                    static fn(Side $side): int => count($sample[$side->value]['columns']) -
                        count(array_unique([...$plan->keyNames($side), ...$plan->pairedNames($side)])),
                )->named(),
                'totals' => $this->totals($findings->getReturn(), $masks),
                'isHead' => $oneIn === null,
                'oneIn' => is_int($oneIn) ? $oneIn : null,
                'findings' => $shown,
            ];
        } finally {
            $workspace->remove();
        }
    }

    /**
     * @param  Sides<SideMask>  $masks
     * @return list<array{name: string, source: string|null, target: string|null, difference: string|null}> in the order of the plan
     */
    private function totals(Summary $summary, Sides $masks): array
    {
        return array_map(static function (TotalReport $report) use ($masks): array {
            $total = $report->total;
            $isHidden = array_filter(Side::cases(), static fn(Side $side): bool => array_filter(
                array_filter([$total->column($side), ...$total->groupColumns($side)]),
                $masks->of($side)->hidesPrepared(...),
            ) !== []) !== [];

            return ['name' => $total->sentence()] + ($isHidden
                ? ['source' => null, 'target' => null, 'difference' => null]
                : array_intersect_key($report->all, ['source' => true, 'target' => true, 'difference' => true]));
        }, $summary->reports->totals);
    }

    /** @return array<string, mixed> */
    private function figures(Summary $summary, bool $isOfAll): array
    {
        return [
            'rows' => ['source' => $summary->source->toArray(), 'target' => $summary->target->toArray()],
            'repeats' => [
                'source' => Tally::repeatFigures($summary->source->repeats()),
                'target' => Tally::repeatFigures($summary->target->repeats()),
            ],
            'values' => Tally::valueFigures($summary->values()->toArray()),
            'ofArrived' => $summary->values()->ofArrived()->text(),
            'rowsArrived' => $summary->rowsArrived()->text(),
            'pairs' => array_map(static fn(array $column): array => [
                'source' => $column['pair']->source,
                'compared' => $column['compared'],
                'forgiven' => $column['forgiven'],
                'differing' => $column['changed'] + $column['blanked'] + $column['filled'],
                'agreeing' => $column['values']->agreement()->text(),
            ], $summary->columns),
            'patterns' => array_map(static fn(Pattern $pattern): array => [
                'source' => $summary->columns[$pattern->pairPosition]['pair']->source,
                'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
                'cells' => $pattern->cells,
            ], $summary->findingPatterns()),
            'keyForgiven' => array_map(static fn(array $forgiven): array => [
                'source' => $forgiven['source'],
                'sentence' => CauseId::sentenceFor($forgiven['cause'], []),
                'cells' => $forgiven['cells'],
            ], $summary->key->forgiven),
            'warnings' => (new Sentences)->warnings(array_values(array_filter(
                $summary->warnings(),
                // Of rows that were not drawn nobody knows whether they are there.
                static fn(Warning $warning): bool => $isOfAll || ! in_array($warning->kind, self::OF_ALL_ROWS, true),
            ))),
        ];
    }

    /**
     * @param  Sides<SideMask>  $masks
     * @return array<string, mixed>
     */
    private function finding(RowFinding $finding, Plan $plan, Sides $masks): array
    {
        $isHidden = static fn(KeyColumn|ColumnPair $pair): bool => $masks->source->hidesPrepared($pair->source) ||
            $masks->target->hidesPrepared($pair->target);
        $key = array_map(
            static fn(string $cell, int $place): string => $isHidden($plan->key[$place]) ? $masks->source->hidden($cell) : $cell,
            $finding->key->cells ?? [],
            array_keys($finding->key->cells ?? []),
        );
        $shown = static fn(CellFinding $cell, string $value): string => $isHidden($plan->columnPairs[$cell->pairPosition])
            ? $masks->source->hidden($value)
            : DeliveryReader::shortened($value);

        return [
            'class' => $finding->class->value,
            'side' => $finding->side?->value,
            'key' => $finding->key === null ? '' : KeyTuple::of($key)->asCsv(),
            'sourceLine' => $finding->source?->line,
            'targetLine' => $finding->target?->line,
            'reason' => $finding->reason === null ? null : (new Sentences)->reason($finding->reason, $finding->reasonFacts),
            'cells' => array_map(static fn(CellFinding $cell): array => [
                'column' => $plan->columnPairs[$cell->pairPosition]->source,
                'sentence' => CauseId::sentenceFor($cell->cause, $cell->facts),
                'source' => $shown($cell, $cell->source),
                'target' => $shown($cell, $cell->target),
            ], $finding->cells),
        ];
    }
}
