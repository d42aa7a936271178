<?php

declare(strict_types=1);

namespace App\Signing;

use App\Models\ClaimExplanation;
use App\Models\Delivery;
use App\Models\EyeCheck;
use App\Models\Pattern;
use App\Models\RecordCheck;
use App\Models\StandingCount;
use App\Models\Tally;
use App\Models\TallyTotal;
use App\Queries\Prove\EyeCheckResult;
use App\Queries\Review\Masks;
use App\Questions\Answers;
use App\Questions\WhatViolatesConstraints;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitFigure;
use NineTally\Core\Limits\Measured;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Row\Side;

/** The figures that limits can be set on, as they stand for a tally: exact, or the reason why there is none. */
final readonly class MeasuredFigures
{
    public function __construct(private Answers $answers, private Masks $masks) {}

    public function measure(Tally $tally, Limit $limit): Measured
    {
        $rows = $tally->summary['rows'];

        return match ($limit->figure) {
            LimitFigure::ValuesRight => $this->values($tally, 'right', $limit->of),
            LimitFigure::ValuesLost => $this->values($tally, 'lost', $limit->of),
            LimitFigure::ValuesDiffering => $this->values($tally, 'differing', $limit->of),
            LimitFigure::ValuesAdded => $this->values($tally, 'added', $limit->of),
            LimitFigure::RowsArrived => Measured::share(
                $rows['source']['agreed'] + $rows['source']['changed'],
                $rows['source']['prepared'],
            ),
            LimitFigure::RowsMissing => $this->rows($tally, 'missing', Side::Source, $limit->of),
            LimitFigure::RowsExtra => $this->rows($tally, 'extra', Side::Target, $limit->of),
            LimitFigure::RowsChanged => Measured::count($rows['source']['changed']),
            LimitFigure::RowsRepeated => $this->bothSides($tally, 'repeated', $limit->of),
            LimitFigure::RowsUnkeyed => $this->bothSides($tally, 'unkeyed', $limit->of),
            LimitFigure::RowsRefused => $this->bothSides($tally, 'refused', $limit->of),
            LimitFigure::RowsLeftOut => $limit->of === null ? $this->bothSides($tally, 'left_out', null) : $this->step($tally, $limit->of),
            LimitFigure::CellsOfPattern => $this->pattern($tally, (string) $limit->of),
            LimitFigure::CellsForgiven => Measured::count(
                array_sum(
                    array_column(
                        $this->forgiven($tally, static fn(array $of): bool => in_array($limit->of, [null, $of['cause']], true)),
                        'cells',
                    ),
                ),
            ),
            LimitFigure::ToleranceCells, LimitFigure::ToleranceLargest, LimitFigure::ToleranceNet => $this->tolerance($tally, $limit),
            LimitFigure::TotalsApart => $tally->totals->isEmpty()
                ? Measured::none('no control total is defined')
                : Measured::count($tally->totals->filter(static fn(TallyTotal $total): bool => $total->differs)->count()),
            LimitFigure::TotalDifference => $this->total($tally, (string) $limit->of),
            LimitFigure::RecordsLost => $this->records($tally, ['lost'], $limit->of),
            LimitFigure::RecordsLacking => $this->records($tally, array_diff(RecordReport::KINDS, ['source']), $limit->of),
            LimitFigure::HandOverSlip => $this->claims($tally),
            LimitFigure::DemandsUnmet => $this->demands($tally),
            LimitFigure::ExtractGap => $this->gap($tally),
            LimitFigure::FindingsOpen => $this->findings($tally, static fn(StandingCount $count): int => $count->open()),
            LimitFigure::FindingsDefect => $this->findings($tally, static fn(StandingCount $count): int => $count->defect),
            LimitFigure::FindingsAsked => $this->findings($tally, static fn(StandingCount $count): int => $count->ask),
            LimitFigure::WrongByEye => $this->eye($tally->eyeChecks->last()),
        };
    }

    /** All that one cause explains in a column pair, whatever its facts. */
    private function pattern(Tally $tally, string $of): Measured
    {
        [$pair, $cause] = [...explode(' ', $of, 2), ''];
        $cells = 0;
        foreach (Pattern::query()->where(['tally_id' => $tally->id, 'pair_id' => $pair, 'cause' => $cause])->get(['cells']) as $pattern) {
            $cells += $pattern->cells;
        }

        return Measured::count($cells);
    }

    /** @param 'right'|'lost'|'differing'|'added' $what */
    private function values(Tally $tally, string $what, ?string $pair): Measured
    {
        if ($pair === null) {
            $values = $tally->summary['values'] ?? null;
        } else {
            $values = array_column($tally->figuresByColumn(), 'values', 'pair')[$pair] ?? null;
        }

        return $values === null
            ? Measured::none($pair === null ? 'the tally is older than it' : 'this column pair is not compared')
            : Measured::share($values[$what], $values['values']);
    }

    /** @param string|null $of side and number of a part */
    private function bothSides(Tally $tally, string $class, ?string $of): Measured
    {
        if ($of === null) {
            return Measured::count($tally->summary['rows']['source'][$class] + $tally->summary['rows']['target'][$class]);
        }
        [$side, $part] = [...explode(' ', $of, 2), ''];
        $side = Side::tryFrom($side);

        return $side === null ? Measured::none('there is no such side') : $this->rows($tally, $class, $side, $part);
    }

    private function rows(Tally $tally, string $class, Side $side, ?string $part): Measured
    {
        if ($part === null) {
            return Measured::count($tally->summary['rows'][$side->value][$class]);
        }
        $delivery = $side === Side::Source ? $tally->sourceDelivery : $tally->targetDelivery;
        $found = $delivery->parts->firstWhere('number', (int) $part);
        if ($found === null) {
            return Measured::none('the delivery has no such part');
        }
        if ($class === 'refused') {
            return Measured::count($found->refused_count);
        }
        if ($delivery->parts->count() === 1) {
            return Measured::count($tally->summary['rows'][$side->value][$class]);
        }
        $slices = array_filter(
            $tally->summary['slices'] ?? [],
            static fn(array $slice): bool => $slice['class'] === $class &&
                ($slice['part'] ?? null) === (int) $part &&
                ($slice['side'] ?? $side->value) === $side->value,
        );

        return Measured::count(array_sum(array_column($slices, 'rows')));
    }

    private function step(Tally $tally, string $of): Measured
    {
        [$side, $id] = [...explode(' ', $of, 2), ''];
        $side = Side::tryFrom($side);
        $steps = $side === null ? [] : $tally->planVersion->plan()->side($side)->preparation->steps;
        $place = array_search($id, array_column($steps, 'id'), true);
        if ($side === null || $place === false) {
            return Measured::none('the plan has no such step');
        }
        /** @var array<int, int> $leftOut */
        $leftOut = array_column($tally->summary['steps'][$side->value] ?? [], 'leftOut', 'number');

        return Measured::count($leftOut[$place + 1] ?? 0);
    }

    /**
     * @param  \Closure(array{cause: string, source: string, cells: int, facts?: array<string, string|int>}): bool  $isMeant
     * @return list<array{cause: string, source: string, cells: int, facts?: array<string, string|int>}>
     */
    private function forgiven(Tally $tally, \Closure $isMeant): array
    {
        return array_values(array_filter([...$tally->summary['keyForgiven'] ?? [], ...$tally->summary['forgiven'] ?? []], $isMeant));
    }

    private function tolerance(Tally $tally, Limit $limit): Measured
    {
        $columns = array_column($tally->figuresByColumn(), 'source', 'pair');
        $passed = $this->forgiven($tally, static fn(array $of): bool => isset($of['facts']['largest']) &&
            ($limit->of === null || ($columns[$limit->of] ?? null) === $of['source']));
        if ($limit->figure === LimitFigure::ToleranceCells) {
            return Measured::count(array_sum(array_column($passed, 'cells')));
        }
        $figures = array_map(
            static fn(array $of): string => (string) (($of['facts'] ?? [])[
                $limit->figure === LimitFigure::ToleranceNet ? 'net' : 'largest'
            ] ?? '0'),
            $passed,
        );

        $measured = $limit->figure === LimitFigure::ToleranceNet ? Measured::netOf($figures) : Measured::largestOf($figures);
        $mask = $this->masks->ofTally($tally);

        return array_filter($passed, static fn(array $of): bool => $mask->hides($of['source'])) === [] ? $measured : $measured->hidden();
    }

    private function total(Tally $tally, string $sentence): Measured
    {
        $total = $tally->totals->first(static fn(TallyTotal $total): bool => $total->total()->sentence() === $sentence);
        $difference = $total?->figures['difference'];

        return match (true) {
            $total === null => Measured::none('no such control total is defined'),
            $difference === null => Measured::none('such a total has no difference'),
            // Nobody knows who will read it.
            $this->masks->ofTally($tally)->hidesTotal($total->total()) => Measured::largestOf([$difference])->hidden(),
            default => Measured::largestOf([$difference]),
        };
    }

    /** @param array<int, string> $kinds */
    private function records(Tally $tally, array $kinds, ?string $sentence): Measured
    {
        $checks = $tally->recordChecks->filter(
            static fn(RecordCheck $check): bool => $sentence === null || $check->rule()->sentence() === $sentence,
        );

        return $checks->isEmpty()
            ? Measured::none('no such rule is defined')
            : Measured::count((int) $checks->sum(static fn(RecordCheck $check): int => array_sum(
                array_map(static fn(array $of): int => $of['values'], array_intersect_key($check->figures['kinds'], array_flip($kinds))),
            )));
    }

    /** Figures that the deliverers handed over, do not hold, and nobody has explained. */
    private function claims(Tally $tally): Measured
    {
        $open = $all = 0;
        foreach ([$tally->sourceDelivery, $tally->targetDelivery] as $delivery) {
            $explained = $delivery->explanations->map(static fn(ClaimExplanation $of): int => $of->claim)->all();
            foreach ($delivery->claims as $number => $claim) {
                $all++;
                $open += $claim['holds'] || in_array($number, $explained, true) ? 0 : 1;
            }
        }

        return $all === 0 ? Measured::none('the deliverers gave no figures') : Measured::count($open);
    }

    private function demands(Tally $tally): Measured
    {
        if ($tally->planVersion->plan()->columnRules->demands === []) {
            return Measured::none('the plan says nothing of what the target demands');
        }
        $answer = $this->answers->to(WhatViolatesConstraints::ofTally($tally, Side::Target));
        /** @var array{columns: list<array{unmet: list<array{count: int}>}>}|null $checked */
        $checked = $answer->content;
        if ($checked === null) {
            return Measured::none($answer->problem ?? 'they are being counted; look again in a moment');
        }

        return Measured::count(array_sum(array_map(
            static fn(array $column): int => array_sum(array_column($column['unmet'], 'count')),
            $checked['columns'],
        )));
    }

    private function gap(Tally $tally): Measured
    {
        $moments = array_map(static fn(Delivery $of) => $of->as_of, [$tally->sourceDelivery, $tally->targetDelivery]);

        return $moments[0] === null || $moments[1] === null
            ? Measured::none('nobody said as of when both sides are')
            : Measured::hours(abs($moments[0]->getTimestamp() - $moments[1]->getTimestamp()));
    }

    /** @param \Closure(StandingCount): int $count */
    private function findings(Tally $tally, \Closure $count): Measured
    {
        return Measured::count((int) $tally->standingCounts->sum($count));
    }

    private function eye(?EyeCheck $check): Measured
    {
        if ($check === null) {
            return Measured::none('nobody looked');
        }
        $worst = 0.0;
        foreach (EyeCheckResult::of($check)->strata as $stratum) {
            if ($stratum['looked'] < $stratum['rows']) {
                return Measured::none('not all rows of the sample were looked at');
            }
            $worst = max($worst, match (true) {
                $stratum['wrong'] > 0 => $stratum['bound'],
                $stratum['rows'] === $stratum['population'] => 0.0,
                default => $check->share,
            });
        }

        return Measured::bound(sprintf('%.2F', ceil($worst * 10_000) / 100));
    }
}
