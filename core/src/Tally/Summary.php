<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Measure\Percentage;
use NineTally\Core\Measure\ValueFigures;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Row\KeyTuple;

/** The figures of a finished tally. */
final readonly class Summary
{
    /**
     * @param  list<array{pair: ColumnPair, compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int, values: ValueFigures, altered: array{source: int, target: int}}>  $columns
     * @param  list<Pattern>  $patterns  of findings in the order in which they first occur, then of what was forgiven
     * @param  list<array{source: string, target: string, cause: string, cells: int}>  $keyForgiven  cells of the key that a cause let pass
     * @param  int  $bridged  rows that met by a bridge
     * @param  list<Bridge>  $idleBridges
     * @param  list<array{source: string, target: string, cells: int, values: array<string, int>|null}>  $withoutEntry  values that crosswalks do not know
     * @param  array<string, list<array{number: int, sentence: string, in: int, made: int, merged: int, leftOut: int, out: int, altered: int, notes: array<string, int>, values: array<string, array<string, int>>}>>  $steps  by side: what each step did, and what it counted beside
     * @param  array<string, list<array<string, mixed>>>  $references  by side: what became of the rows of references
     * @param  array<string, array<string, int>>  $reasons  class => why the other side has no counterpart, where it is known => rows
     * @param  array<string, int>  $undecided  by side: keys of several rows whose deciding columns do not decide
     */
    public function __construct(
        public SideCounts $source,
        public SideCounts $target,
        public array $columns,
        public array $patterns,
        public array $keyForgiven = [],
        public int $bridged = 0,
        public array $idleBridges = [],
        public array $withoutEntry = [],
        public array $steps = [],
        public array $references = [],
        public array $reasons = [],
        public array $undecided = [],
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

    /** Matched rows of all shaped source rows. */
    public function rowsArrived(): Percentage
    {
        return new Percentage($this->source->agreed + $this->source->changed, $this->source->shaped);
    }

    public function values(): ValueFigures
    {
        return ValueFigures::sum(...array_column($this->columns, 'values'));
    }

    /** Every prepared row of both sides agrees, and no record was refused. Rows that steps left out were left out by decision. */
    public function allAgreed(): bool
    {
        return array_filter([$this->source, $this->target], static fn(SideCounts $side): bool => $side->agreed !== $side->shaped || $side->refused > 0) === [];
    }

    /** @return list<string> what is no error but must be seen, in words */
    public function warnings(): array
    {
        $warnings = [];
        foreach ([$this->source, $this->target] as $side) {
            $name = $side->side->value;
            if ($side->delivered === 0) {
                $warnings[] = "The {$name} delivers no rows: the file holds a header only.";
            } elseif ($side->shaped === 0) {
                $warnings[] = sprintf('The steps leave out every row of the %s%s, so nothing could be compared.', $name, $this->emptyingStep($name));
            } elseif ($side->repeated === $side->shaped && $side->agreed + $side->changed === 0) {
                $warnings[] = "Every row of the {$name} shares its key with another row, so nothing could be compared. Choose a key that tells rows apart.";
            }
            if ($side->quotesLeftOpen > 0) {
                $warnings[] = sprintf('A quote in the %s is opened and never closed: all that follows it in its file is one refused record, listed with its line. Close it, or double it where it belongs to the value, and deliver the file again.', $name);
            }
            if ($side->keysRepeatedHereOnly > 0) {
                $warnings[] = sprintf('%s in the %s and %s not exist on the other side: rows lost there would not show as %s.', self::counted($side->keysRepeatedHereOnly, 'key repeats', 'keys repeat'), $name, $side->keysRepeatedHereOnly === 1 ? 'does' : 'do', $name === 'source' ? 'missing' : 'extra');
            }
            if ($side->keysRepeatedByForgiving > 0) {
                $warnings[] = sprintf('%s in the %s only because the key forgives: as delivered, they are different.', self::counted($side->keysRepeatedByForgiving, 'key repeats', 'keys repeat'), $name);
            }
            if ($side->partlyBlankKeys > 0) {
                $warnings[] = sprintf('%s a partly blank key.', self::counted($side->partlyBlankKeys, "row of the {$name} has", "rows of the {$name} have"));
            }
        }

        foreach ($this->withoutEntry as ['source' => $column, 'cells' => $cells, 'values' => $values]) {
            $warnings[] = sprintf('%s of "%s" in %s no entry in its crosswalk and %s compared as delivered.', $values === null ? 'Very many values' : self::counted(count($values), 'value', 'values'), $column, self::counted($cells, 'cell', 'cells').(count($values ?? [1, 2]) === 1 ? ' has' : ' have'), count($values ?? [1, 2]) === 1 ? 'was' : 'were');
        }
        foreach ($this->undecided as $side => $keys) {
            if ($keys > 0) {
                $warnings[] = sprintf('%s in the %s that no column decides: the first row of each was kept.', self::counted($keys, 'key repeats', 'keys repeat'), $side);
            }
        }
        if ($this->allAgreed() && $this->source->leftOut + $this->target->leftOut > 0) {
            $warnings[] = sprintf('All that was compared agrees. By decision, steps left out %s of the source and %s of the target.', self::counted($this->source->leftOut, 'row', 'rows'), self::counted($this->target->leftOut, 'row', 'rows'));
        }
        foreach ($this->idleBridges as $bridge) {
            $warnings[] = sprintf('The bridge from %s to %s joined nothing: one of its keys has a counterpart, or no row of its own.', KeyTuple::of($bridge->source)->asCsv(), KeyTuple::of($bridge->target)->asCsv());
        }

        return $warnings;
    }

    private function emptyingStep(string $side): string
    {
        foreach ($this->steps[$side] ?? [] as $step) {
            if ($step['out'] === 0) {
                return sprintf(' (the last of them by step %d: %s)', $step['number'], $step['sentence']);
            }
        }

        return '';
    }

    private static function counted(int $count, string $one, string $many): string
    {
        return number_format($count).' '.($count === 1 ? $one : $many);
    }

    /** @return array<string, mixed> the object that the command line prints and writes */
    public function toArray(): array
    {
        $values = $this->values();

        return [
            'rows' => ['source' => $this->source->toArray(), 'target' => $this->target->toArray()],
            'reasons' => (object) array_map(static fn(array $reasons): object => (object) $reasons, $this->reasons),
            'keys' => ['source' => $this->keys($this->source), 'target' => $this->keys($this->target)],
            'bridges' => ['used' => $this->bridged, 'idle' => array_map(static fn(Bridge $bridge): array => $bridge->toArray(), $this->idleBridges)],
            'steps' => array_map(static fn(array $steps): array => array_map(static fn(array $step): array => ['notes' => (object) $step['notes'], 'values' => (object) array_map(static fn(array $values): object => (object) $values, $step['values'])] + $step, $steps), $this->steps),
            'references' => $this->references,
            'cells' => $this->cells(),
            'values' => $values->toArray(),
            'rows_arrived' => $this->rowsArrived()->text(),
            'right_of_arrived' => $values->ofArrived()->text(),
            'key_forgiven' => $this->keyForgiven,
            'without_entry' => array_map(static fn(array $one): array => ['values' => $one['values'] === null ? null : (object) $one['values']] + $one, $this->withoutEntry),
            'columns' => array_map(static fn(array $column): array => ['source' => $column['pair']->source, 'target' => $column['pair']->target, ...array_diff_key($column, ['pair' => true, 'values' => true]), 'values' => $column['values']->toArray()], $this->columns),
            'patterns' => array_map(fn(Pattern $pattern): array => [
                'source' => $this->columns[$pattern->pairPosition]['pair']->source,
                'target' => $this->columns[$pattern->pairPosition]['pair']->target,
                'class' => $pattern->class->value,
                'cause' => $pattern->cause,
                'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
                'facts' => (object) $pattern->facts,
                'cells' => $pattern->cells,
                'examples' => $pattern->examples,
                ...($pattern->breakdown === [] ? [] : ['breakdown' => (object) $pattern->breakdown]),
            ], $this->patterns),
            'engine' => EngineVersion::all(),
        ];
    }

    /** @return array{partly_blank: int, repeated_here_only: int, repeated_by_forgiving: int, undecided: int} */
    private function keys(SideCounts $side): array
    {
        return ['partly_blank' => $side->partlyBlankKeys, 'repeated_here_only' => $side->keysRepeatedHereOnly, 'repeated_by_forgiving' => $side->keysRepeatedByForgiving, 'undecided' => $this->undecided[$side->side->value] ?? 0];
    }
}
