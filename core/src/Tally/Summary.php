<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Figures\Percentage;
use NineTally\Core\Figures\ValueFigures;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Records\RecordReport;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Totals\TotalReport;
use NineTally\Core\Wording\Warning;
use NineTally\Core\Wording\WarningKind;

/** The figures of a finished tally. */
final readonly class Summary
{
    /**
     * @param  list<array{pair: ColumnPair, compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int,
     *     values: ValueFigures, altered: array{source: int, target: int}}>  $columns
     * @param  list<Pattern>  $patterns  of findings in the order in which they first occur, then of what was forgiven
     */
    public function __construct(
        public SideCounts $source,
        public SideCounts $target,
        public array $columns,
        public array $patterns,
        public KeyFigures $key = new KeyFigures,
        public PreparationFigures $preparation = new PreparationFigures,
        public ColumnReports $reports = new ColumnReports,
        public RowSlices $slices = new RowSlices,
    ) {}

    /** @return array{compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int} */
    public function cells(): array
    {
        $sum = ['compared' => 0, 'identical' => 0, 'forgiven' => 0, 'changed' => 0, 'blanked' => 0, 'filled' => 0];
        foreach ($this->columns as $column) {
            foreach (array_keys($sum) as $class) {
                $sum[$class] += $column[$class];
            }
        }

        return $sum;
    }

    /** @return list<Pattern> of cells that need an explanation */
    public function findingPatterns(): array
    {
        return array_values(array_filter($this->patterns, static fn(Pattern $pattern): bool => $pattern->class !== CellClass::Forgiven));
    }

    /** @return list<Pattern> of cells that a rule let pass */
    public function forgivenPatterns(): array
    {
        return array_values(array_filter($this->patterns, static fn(Pattern $pattern): bool => $pattern->class === CellClass::Forgiven));
    }

    /** Matched rows of all prepared source rows. */
    public function rowsArrived(): Percentage
    {
        return new Percentage($this->source->agreed + $this->source->changed, $this->source->prepared);
    }

    public function values(): ValueFigures
    {
        return ValueFigures::sum(...array_column($this->columns, 'values'));
    }

    /** Every prepared row of both sides agrees, and no record was refused. Rows that steps left out were left out by decision. */
    public function allAgreed(): bool
    {
        return array_filter(
            [$this->source, $this->target],
            static fn(SideCounts $side): bool => $side->agreed !== $side->prepared || $side->refused > 0,
        ) === [];
    }

    /** @return list<Warning> what is no error but must be seen */
    public function warnings(): array
    {
        $warnings = [...$this->warningsOf($this->source), ...$this->warningsOf($this->target)];
        foreach ($this->reports->withoutEntry as ['source' => $column, 'cells' => $cells, 'values' => $values]) {
            $warnings[] = new Warning(WarningKind::WithoutEntry, [
                'column' => $column,
                'cells' => $cells,
                ...$values === null ? [] : ['values' => count($values)],
            ]);
        }
        foreach (array_filter($this->key->undecided) as $side => $keys) {
            $warnings[] = new Warning(WarningKind::Undecided, ['side' => $side, 'keys' => $keys]);
        }
        if ($this->allAgreed() && $this->source->leftOut + $this->target->leftOut > 0) {
            $warnings[] = new Warning(WarningKind::AgreesButLeftOut, [
                'source' => $this->source->leftOut,
                'target' => $this->target->leftOut,
            ]);
        }
        foreach ($this->key->idleBridges as $bridge) {
            $warnings[] = new Warning(WarningKind::IdleBridge, [
                'source' => KeyTuple::of($bridge->source)->asCsv(),
                'target' => KeyTuple::of($bridge->target)->asCsv(),
            ]);
        }

        foreach ([
            [WarningKind::ReopenedChoice, $this->key->choices->reopened],
            [WarningKind::IdleChoice, $this->key->choices->idle],
        ] as [$kind, $choices]) {
            foreach ($choices as $chosen) {
                $warnings[] = new Warning($kind, ['side' => $chosen->side->value, 'key' => KeyTuple::of($chosen->key)->asCsv()]);
            }
        }

        return $warnings;
    }

    /** @return list<Warning> */
    private function warningsOf(SideCounts $side): array
    {
        $name = ['side' => $side->side->value];
        $found = [
            match (true) {
                $side->delivered === 0 => new Warning(WarningKind::NoRows, $name),
                $side->prepared === 0 => new Warning(WarningKind::EverythingLeftOut, $name + $this->emptyingStep($side->side->value)),
                $side->repeated === $side->prepared && $side->agreed + $side->changed === 0 => new Warning(
                    WarningKind::EverythingRepeated,
                    $name,
                ),
                default => null,
            },
            $side->quotesLeftOpen === 0 ? null : new Warning(WarningKind::QuoteLeftOpen, $name),
            $side->keysRepeatedHereOnly === 0
                ? null
                : new Warning(WarningKind::RepeatedHereOnly, $name + ['keys' => $side->keysRepeatedHereOnly]),
            $side->keysRepeatedByForgiving === 0
                ? null
                : new Warning(WarningKind::RepeatedByForgiving, $name + ['keys' => $side->keysRepeatedByForgiving]),
            $side->partlyBlankKeys === 0 ? null : new Warning(WarningKind::PartlyBlankKeys, $name + ['rows' => $side->partlyBlankKeys]),
        ];

        return array_values(array_filter($found));
    }

    /** @return array{}|array{step: int, does: string} */
    private function emptyingStep(string $side): array
    {
        foreach ($this->preparation->steps[$side] ?? [] as $step) {
            if ($step['out'] === 0) {
                return ['step' => $step['number'], 'does' => $step['sentence']];
            }
        }

        return [];
    }

    /** @return array<string, mixed> the object that the command line prints and writes */
    public function toArray(): array
    {
        $values = $this->values();

        return [
            'rows' => ['source' => $this->source->toArray(), 'target' => $this->target->toArray()],
            'reasons' => (object) array_map(static fn(array $reasons): object => (object) $reasons, $this->slices->reasons),
            'bridged' => (object) $this->slices->bridged,
            'parts' => $this->slices->partsAsObject(),
            'keys' => ['source' => $this->keys($this->source), 'target' => $this->keys($this->target)],
            'bridges' => [
                'used' => $this->key->bridged,
                'idle' => array_map(static fn(Bridge $bridge): array => $bridge->toArray(), $this->key->idleBridges),
            ],
            ...$this->key->choices->count() === 0 ? [] : ['choices' => $this->key->choices->toArray()],
            'steps' => array_map(
                static fn(array $steps): array => array_map(
                    static fn(array $step): array => [
                        'notes' => (object) $step['notes'],
                        'values' => (object) array_map(static fn(array $values): object => (object) $values, $step['values']),
                    ] + $step,
                    $steps,
                ),
                $this->preparation->steps,
            ),
            'agreed_by_rule' => $this->source->agreedByRule,
            'references' => $this->preparation->references,
            'cells' => $this->cells(),
            'values' => $values->toArray(),
            'rows_arrived' => $this->rowsArrived()->text(),
            'right_of_arrived' => $values->ofArrived()->text(),
            'key_forgiven' => $this->key->forgiven,
            'without_entry' => array_map(
                static fn(array $one): array => ['values' => $one['values'] === null ? null : (object) $one['values']] + $one,
                $this->reports->withoutEntry,
            ),
            'columns' => array_map(
                static fn(array $column): array => [
                    'source' => $column['pair']->source,
                    'target' => $column['pair']->target,
                    ...array_diff_key($column, ['pair' => true, 'values' => true]),
                    'values' => $column['values']->toArray(),
                ],
                $this->columns,
            ),
            'patterns' => array_map(
                fn(Pattern $pattern): array => [
                    'source' => $this->columns[$pattern->pairPosition]['pair']->source,
                    'target' => $this->columns[$pattern->pairPosition]['pair']->target,
                    'class' => $pattern->class->value,
                    'cause' => $pattern->cause,
                    'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
                    'facts' => (object) $pattern->facts,
                    'cells' => $pattern->cells,
                    'examples' => $pattern->examples,
                    ...$pattern->detail->breakdown === [] ? [] : ['breakdown' => (object) $pattern->detail->breakdown],
                    ...$pattern->detail->worth === null ? [] : ['worth' => $pattern->detail->worth->toArray()],
                ],
                $this->patterns,
            ),
            ...array_filter([
                'totals' => array_map(static fn(TotalReport $total): array => $total->toArray(), $this->reports->totals),
                'records' => array_map(static fn(RecordReport $report): array => $report->toArray(), $this->reports->records),
            ]),
            'engine' => EngineVersion::all(),
        ];
    }

    /**
     * @return array{set_aside: int, not_kept: int, kept: int, partly_blank: int, repeated_here_only: int, repeated_by_forgiving: int,
     *     undecided: int}
     */
    private function keys(SideCounts $side): array
    {
        return [
            ...$side->repeats(),
            'partly_blank' => $side->partlyBlankKeys,
            'repeated_here_only' => $side->keysRepeatedHereOnly,
            'repeated_by_forgiving' => $side->keysRepeatedByForgiving,
            'undecided' => $this->key->undecided[$side->side->value] ?? 0,
        ];
    }
}
