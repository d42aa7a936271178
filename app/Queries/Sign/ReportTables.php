<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Pattern;
use App\Models\ReportText;
use App\Models\Ruling;
use App\Models\Signature;
use App\Models\Tally;
use App\Models\Waiver;
use App\Queries\Review\Masks;
use App\Queries\TakeAway\ListTable;
use App\Queries\TakeAway\Table;
use App\Signing\HeldLimits;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Plan\PlanInWords;
use NineTally\Core\Preparation\StepCatalogue;
use NineTally\Core\Row\Side;
use NineTally\Core\Tally\EngineVersion;

/** The report as tables, for whoever reckons with it: masked for everybody in one way, as the page is. */
final readonly class ReportTables
{
    public function __construct(
        private FirstPage $firstPage,
        private ReportContent $content,
        private PackTables $packTables,
        private Masks $masks,
    ) {}

    /** @return array<string, Table> by the name of the sheet */
    public function of(Tally $tally): array
    {
        $tally->load([...HeldLimits::RELATIONS, 'sourceDelivery.user', 'targetDelivery.user']);
        $first = $this->firstPage->of($tally);
        $content = ($this->content)($tally);
        $more = $this->packTables->of($tally, $this->masks->ofTally($tally));

        return [
            'Report' => $this->heading($tally, $first),
            'Limits' => $this->limits($first),
            'Signatures' => $this->signatures($tally),
            'Rows' => $this->rows($tally),
            'Columns' => $this->columns($tally),
            'Differences' => $this->differences($content),
            'Rulings' => $more['rulings'],
            'Corrections' => $this->corrections($content),
            'Totals' => $more['totals'],
            'Groups of totals' => $more['total-groups'],
            'Steps' => $this->steps($tally),
            'Plan' => $this->plan($tally),
            'Deliveries' => $more['deliveries'],
        ];
    }

    /** @param array<string, mixed> $first */
    private function heading(Tally $tally, array $first): ListTable
    {
        $texts = ReportText::standing($tally->id);
        /** @var list<string> $things */
        $things = $first['things'];
        $lines = [
            ['migration', $tally->dataset->migration->name],
            ['dataset', $tally->dataset->name],
            ['tally', (string) $tally->number],
            ['made', $tally->finished_at->toIso8601ZuluString()],
            ['plan', "version {$tally->planVersion->number}, SHA-256 {$tally->planVersion->digest}"],
            ['verdict', is_string($first['verdict']) ? $first['verdict'] : 'nobody said what is good enough'],
            ['limits', is_string($first['limitsInWords']) ? $first['limitsInWords'] : ''],
            ...array_map(static fn(string $thing): array => ['to know', $thing], $things),
            ...isset($texts['opening']) ? [['the analyst', $texts['opening']->text]] : [],
            ...isset($texts['closing']) ? [['the analyst', $texts['closing']->text]] : [],
            ['engine', EngineVersion::ENGINE],
        ];

        return ListTable::of(['what' => 'string', 'said' => 'string'], $lines, []);
    }

    /** @param array<string, mixed> $first */
    private function limits(array $first): ListTable
    {
        $lines = [];
        /** @var list<array{held: HeldLimit, scope: string, waiver: Waiver|null}> $limits */
        $limits = $first['limits'];
        foreach ($limits as ['held' => $held, 'scope' => $scope, 'waiver' => $waiver]) {
            $lines[] = [
                $held->limit->name($scope), $held->limit->worst ?? '', $held->value(), $held->state->value,
                ListTable::boolean($held->isInherited), $waiver === null ? '' : "{$waiver->user->name}: {$waiver->reason}",
                $waiver?->ends_on->format('Y-m-d') ?? '',
            ];
        }

        return ListTable::of([
            'figure' => 'string', 'worst' => 'string', 'value' => 'string', 'state' => 'string', 'of the migration' => 'boolean',
            'waived by' => 'string', 'until' => 'string',
        ], $lines, []);
    }

    private function signatures(Tally $tally): ListTable
    {
        return ListTable::of(
            ['act' => 'string', 'person' => 'string', 'role' => 'string', 'at' => 'datetime', 'words' => 'string', 'digest' => 'string'],
            array_values($tally->signatures->map(static fn(Signature $one): array => [
                $one->act->value, $one->user->name, $one->role->label(), $one->created_at->toIso8601ZuluString(),
                $one->reason === '' ? $one->words : $one->reason, (string) $one->digest,
            ])->all()),
            [],
        );
    }

    private function rows(Tally $tally): ListTable
    {
        ['source' => $source, 'target' => $target] = $tally->summary['rows'];
        $lines = [];
        foreach (array_keys($source + $target) as $class) {
            $lines[] = [str_replace('_', ' ', $class), $source[$class] ?? 0, $target[$class] ?? 0];
        }

        return ListTable::of(['rows' => 'string', 'source' => 'integer', 'target' => 'integer'], $lines, ['rows']);
    }

    private function columns(Tally $tally): ListTable
    {
        $lines = [];
        foreach ($tally->figuresByColumn() as ['source' => $source, 'target' => $target, 'values' => $of]) {
            $lines[] = [
                $source, $target, $of['agreement'], $of['values'], $of['right'], $of['differing'], $of['lost'], $of['added'],
                $of['blank_on_both'],
            ];
        }

        return ListTable::of([
            'source' => 'string', 'target' => 'string', 'agreement' => 'string', 'values' => 'integer', 'right' => 'integer',
            'differing' => 'integer', 'lost' => 'integer', 'added' => 'integer', 'blank on both' => 'integer',
        ], $lines, ['source', 'target']);
    }

    /** @param array<string, mixed> $content */
    private function differences(array $content): ListTable
    {
        $lines = [];
        /** @var list<array{class: RowClass, rulings: string, count: int}> $classes */
        $classes = $content['classes'];
        foreach ($classes as ['class' => $class, 'rulings' => $rulings, 'count' => $count]) {
            $lines[] = ['rows', '', $class->sentence(), $count, $rulings];
        }
        /** @var list<array{pattern: Pattern, rulings: string}> $patterns */
        $patterns = $content['patterns'];
        foreach ($patterns as ['pattern' => $pattern, 'rulings' => $rulings]) {
            $lines[] = [
                'cells',
                $pattern->source_column,
                CauseId::sentenceFor($pattern->cause, $pattern->facts),
                $pattern->cells,
                $rulings,
            ];
        }

        return ListTable::of(
            ['of' => 'string', 'column' => 'string', 'why' => 'string', 'findings' => 'integer', 'rulings' => 'string'],
            $lines,
            [],
        );
    }

    /** @param array<string, mixed> $content */
    private function corrections(array $content): ListTable
    {
        $lines = [];
        /** @var list<array{act: Ruling, tally: int, about: string, standing: int}> $corrections */
        $corrections = $content['corrections'];
        foreach ($corrections as ['act' => $act, 'about' => $about, 'standing' => $standing]) {
            $lines[] = [(string) $act->ticket, $about, $standing, $act->reason, $act->user->name];
        }

        return ListTable::of(
            ['ticket' => 'string', 'what' => 'string', 'findings' => 'integer', 'reason' => 'string', 'by' => 'string'],
            $lines,
            [],
        );
    }

    private function steps(Tally $tally): ListTable
    {
        $lines = [];
        $plan = $this->masks->planOf($tally);
        foreach (Side::cases() as $side) {
            foreach ($tally->summary['steps'][$side->value] ?? [] as $step) {
                /** @var array{number: int, in: int, made: int, leftOut: int, condensed: int, out: int, altered: int} $step */
                $told = $plan->side($side)->preparation->steps[$step['number'] - 1];
                $lines[] = [
                    $side->value, $step['number'], StepCatalogue::make($told)->sentence(), $told['reason'] ?? '',
                    $told['answersFor'] ?? '',
                    ...array_map(
                        static fn(string $figure): mixed => $step[$figure],
                        ['in', 'made', 'leftOut', 'condensed', 'out', 'altered'],
                    ),
                ];
            }
        }

        return ListTable::of([
            'side' => 'string', 'step' => 'integer', 'what' => 'string', 'reason' => 'string', 'answers for it' => 'string',
            'in' => 'integer', 'made' => 'integer', 'left out' => 'integer', 'condensed' => 'integer', 'out' => 'integer',
            'cells altered' => 'integer',
        ], $lines, ['side', 'step']);
    }

    private function plan(Tally $tally): ListTable
    {
        $words = new PlanInWords($this->masks->planOf($tally));

        return ListTable::of(['column' => 'string', 'part' => 'string', 'compared as' => 'string'], [
            ...array_map(static fn(array $one): array => [$one['name'], 'key', $one['rule']], $words->key()),
            ...array_map(static fn(array $one): array => [$one['name'], 'pair', $one['rule']], $words->pairs()),
        ], []);
    }
}
