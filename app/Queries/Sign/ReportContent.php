<?php

declare(strict_types=1);

namespace App\Queries\Sign;

use App\Models\Decision;
use App\Models\Pattern;
use App\Models\Ruling;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Queries\Prove\EyeChecks;
use App\Queries\Prove\RecordsOfTally;
use App\Queries\Prove\TotalPicture;
use App\Queries\Prove\TotalsOfTally;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\ActWords;
use App\Queries\Review\FindingPages;
use App\Queries\Review\Mask;
use App\Queries\Review\Masks;
use App\Queries\Review\WorthOfFindings;
use App\Queries\Tally\OutOfDate;
use App\Rulings\FindingGroup;
use App\Rulings\FindingSet\Filter;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\PlanInWords;
use NineTally\Core\Row\Side;
use NineTally\Core\Wording\Sentences;

/** What the report says: the same for the same tally and the same rulings. */
final readonly class ReportContent
{
    /** A printed value longer than this is cut; the findings as CSV have it whole. */
    private const LONGEST_VALUE = 120;

    private const PATTERNS_WITH_EXAMPLES = 40;

    private const GROUPS_OF_TOTAL = 12;

    /** Of a table: a board reads no more, and the files beside it have the rest. */
    private const MOST_LINES = 200;

    public function __construct(
        private FindingPages $pages,
        private Masks $masks,
        private ActsOfTally $acts,
        private TotalsOfTally $totals,
        private RecordsOfTally $records,
        private WorthOfFindings $worth,
        private EyeChecks $eyeChecks,
        private int $findings,
    ) {}

    /** @return array<string, mixed> for the view "report" */
    public function __invoke(Tally $tally): array
    {
        $tally->load([
            'dataset.migration', 'user', 'planVersion', 'sourceDelivery.user', 'sourceDelivery.explanations.user', 'targetDelivery.user',
            'targetDelivery.explanations.user', 'standingCounts', 'patterns', 'name', 'purged.purge.user',
        ]);
        $standings = $tally->standingCounts->keyBy('group');
        // Nobody knows into whose hands a report comes.
        $mask = $this->masks->ofTally($tally);
        $patterns = $tally->patterns->sortBy([['cells', 'desc'], ['number', 'asc']])->values();

        // Nobody knows who will read it.
        $plan = $this->masks->planOf($tally);

        return [
            'tally' => $tally,
            'migration' => $tally->dataset->migration,
            'plan' => $plan,
            'inWords' => new PlanInWords($plan),
            'overlap' => OverlapPicture::of($tally->summary['rows'])->svg(),
            'parts' => $this->parts($tally),
            'bridged' => $this->bridged($tally),
            'isPlanMasked' => $plan->digest() !== $tally->planVersion->digest,
            'rows' => $tally->summary['rows'],
            'totals' => $this->totals($tally, $mask),
            'records' => $this->records->all($tally, $mask, null),
            'eyeChecks' => $this->eyeChecks->all($tally),
            'notDrawn' => array_sum(EyeChecks::withoutOneKey($tally)),
            'worth' => $this->worth->of($tally, Filter::from(['of' => 'cells']), $mask),
            'warnings' => [...(new OutOfDate)->sentences($tally), ...$mask->warnings($tally->summary['warnings'])],
            'classes' => $this->classes($tally, $standings, $mask),
            'patterns' => $patterns
                ->map(
                    fn(Pattern $pattern, int $position): array => [
                        'pattern' => $pattern,
                        'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
                        'rulings' => $this->rulings($standings->get(FindingGroup::ofPattern($pattern->number)->name())),
                        'findings' =>
                            $position < self::PATTERNS_WITH_EXAMPLES
                                ? $this->pages->page($tally, Filter::ofPattern($pattern->number), $mask, 1, $this->findings)['items']
                                : [],
                    ],
                )
                ->all(),
            'open' => StandingCount::openOf($tally->standingCounts),
            'acts' => $acts = $this->acts($tally, $mask),
            'corrections' => $this->corrections($acts),
            'people' => ReportPeople::of($tally, $acts),
            'mostLines' => self::MOST_LINES,
            'findings' => $tally->standingCounts->sum(static fn(StandingCount $count): int => $count->findings),
            'begins' => self::begins(...),
            'shorten' => static fn(string $value): string => mb_strlen($value) > self::LONGEST_VALUE
                ? mb_substr($value, 0, self::LONGEST_VALUE).'…'
                : $value,
        ];
    }

    /** @return list<string> the first cells of a row, each to be written in its own direction; of a refused record why, and its text */
    private static function begins(RowFinding $row): array
    {
        $refused = $row->refused;
        $cells = $refused === null
            ? $row->record()->cells ?? []
            : [(new Sentences)->refusal($refused->reason, $refused->facts).':', $refused->raw];
        $shown = [];
        $left = self::LONGEST_VALUE;
        foreach ($cells as $cell) {
            $shown[] = mb_strlen($cell) > $left ? mb_substr($cell, 0, $left).'…' : $cell;
            $left -= mb_strlen($cell);
            if ($left <= 0) {
                break;
            }
        }

        return $shown;
    }

    /**
     * Parts of the sides that have several, with the rows of each that do not agree.
     *
     * @return list<array{side: Side, number: int, label: string, refused: int, delivered: int, rows: array<string, int>}>
     */
    private function parts(Tally $tally): array
    {
        $parts = [];
        foreach ([[Side::Source, $tally->sourceDelivery], [Side::Target, $tally->targetDelivery]] as [$side, $delivery]) {
            foreach ($delivery->parts->count() > 1 ? $delivery->parts : [] as $part) {
                $rows = [];
                foreach ($tally->summary['slices'] ?? [] as $slice) {
                    if (($slice['side'] ?? '') === $side->value && ($slice['part'] ?? 0) === $part->number) {
                        $rows[$slice['class']] = $slice['rows'];
                    }
                }
                $parts[] = [
                    'side' => $side,
                    'number' => $part->number,
                    'label' => $part->part_label,
                    'refused' => $part->refused_count,
                    'delivered' => $part->delivered_count,
                    'rows' => $rows,
                ];
            }
        }

        return $parts;
    }

    /** @return array<string, int> rows that bridges join and that do not agree, by class */
    private function bridged(Tally $tally): array
    {
        $bridged = [];
        foreach ($tally->summary['slices'] ?? [] as $slice) {
            if (isset($slice['bridged'])) {
                $bridged[$slice['class']] = $slice['rows'];
            }
        }

        return $bridged;
    }

    /** @return list<array{total: array<string, mixed>, groups: list<array<string, mixed>>, picture: string}> */
    private function totals(Tally $tally, Mask $mask): array
    {
        $totals = [];
        foreach ($this->totals->all($tally, $mask) as $total) {
            $row = TallyTotal::query()->where(['tally_id' => $tally->id, 'number' => $total['number']])->firstOrFail();
            $groups = $total['isMasked'] ? [] : $this->totals->page($row, 1, self::GROUPS_OF_TOTAL);
            $totals[] = ['total' => $total, 'groups' => $groups, 'picture' => TotalPicture::of($groups)->svg()];
        }

        return $totals;
    }

    /**
     * Acts that stand on findings of the tally, the newest first: what was decided, about what, why, by whom.
     *
     * @return list<array{act: Ruling, tally: int, about: string, standing: int}>
     */
    private function acts(Tally $tally, Mask $mask): array
    {
        $acts = [];
        foreach ($this->acts->of($tally, $mask) as $of) {
            if ($of->standing > 0) {
                $acts[] = ['act' => $of->act, 'tally' => $of->tally, 'about' => ActWords::of($of->act, $mask), 'standing' => $of->standing];
            }
        }

        return $acts;
    }

    /**
     * Defects that stand, by their tickets; those without one come last.
     *
     * @param  list<array{act: Ruling, tally: int, about: string, standing: int}>  $acts
     * @return list<array{act: Ruling, tally: int, about: string, standing: int}>
     */
    private function corrections(array $acts): array
    {
        $defects = array_filter($acts, static fn(array $entry): bool => $entry['act']->decision === Decision::Defect);
        usort(
            $defects,
            static fn(array $one, array $other): int => [$one['act']->ticket === null, $one['act']->ticket, -$one['standing']] <=> [
                $other['act']->ticket === null,
                $other['act']->ticket,
                -$other['standing'],
            ],
        );

        return $defects;
    }

    /**
     * @param  \Illuminate\Support\Collection<string, StandingCount>  $standings
     * @return list<array<string, mixed>>
     */
    private function classes(Tally $tally, \Illuminate\Support\Collection $standings, Mask $mask): array
    {
        $classes = [];
        $slices = $tally->slices();
        foreach ([RowClass::Missing, RowClass::Extra, RowClass::Repeated, RowClass::Unkeyed, RowClass::Refused] as $class) {
            $count = $standings->get(FindingGroup::ofClass($class)->name());
            if ($count !== null) {
                $classes[] = [
                    'class' => $class,
                    'rulings' => $this->rulings($count),
                    'count' => $count->findings,
                    'slices' => $slices[$class->value] ?? [],
                    'findings' => $this->pages->page($tally, Filter::ofClass($class->value), $mask, 1, $this->findings)['items'],
                ];
            }
        }

        return $classes;
    }

    private function rulings(?StandingCount $count): string
    {
        if ($count === null) {
            return '';
        }
        $parts = [];
        foreach (
            ['expected' => $count->expected, 'defect' => $count->defect, 'ask' => $count->ask, 'open' => $count->open()]
            as $decision => $findings
        ) {
            if ($findings > 0) {
                $parts[] = number_format($findings).' '.$decision;
            }
        }

        return implode(', ', $parts);
    }
}
