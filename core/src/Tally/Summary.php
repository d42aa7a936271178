<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Measure\Percentage;
use NineTally\Core\Plan\Bridge;
use NineTally\Core\Row\KeyTuple;

/** The figures of a finished tally. */
final readonly class Summary
{
    /**
     * @param  list<array{pair: ColumnPair, compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int, altered: array{source: int, target: int}}>  $columns
     * @param  list<Pattern>  $patterns  of findings in the order in which they first occur, then of what was forgiven
     * @param  list<array{source: string, target: string, cause: string, cells: int}>  $keyForgiven  cells of the key that a cause let pass
     * @param  int  $bridged  rows that met by a bridge
     * @param  list<Bridge>  $idleBridges
     * @param  array<string, int>  $withoutEntry  source column => values that its crosswalk does not know
     * @param  array<string, list<array{number: int, sentence: string, in: int, made: int, merged: int, leftOut: int, out: int, altered: int}>>  $steps  by side: what each step did
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

    public function cellsAgreeing(): Percentage
    {
        $cells = $this->cells();

        return new Percentage($cells['identical'] + $cells['forgiven'], $cells['compared']);
    }

    /** The paired cells of every row that was not compared count as not agreeing. */
    public function cellsAgreeingOverall(): Percentage
    {
        $cells = $this->cells();
        $notCompared = 0;
        foreach ([$this->source, $this->target] as $side) {
            $notCompared += $side->unmatched + $side->repeated + $side->unkeyed;
        }

        return new Percentage($cells['identical'] + $cells['forgiven'], $cells['compared'] + $notCompared * count($this->columns));
    }

    /** Refused records count too: they were handed over and did not arrive. */
    public function allAgreed(): bool
    {
        return $this->source->agreed === $this->source->read && $this->target->agreed === $this->target->read;
    }

    /** @return list<string> what is no error but must be seen, in words */
    public function warnings(): array
    {
        $warnings = [];
        foreach ([$this->source, $this->target] as $side) {
            $name = $side->side->value;
            if ($side->delivered === 0) {
                $warnings[] = "The {$name} delivers no rows: the file holds a header only.";
            } elseif ($side->repeated === $side->shaped && $side->agreed + $side->changed === 0) {
                $warnings[] = "Every row of the {$name} shares its key with another row, so nothing could be compared. Choose a key that tells rows apart.";
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

        foreach ($this->withoutEntry as $column => $values) {
            $warnings[] = sprintf('%s of "%s no entry in its crosswalk and %s compared as delivered.', self::counted($values, 'value', 'values'), $column.'" '.($values === 1 ? 'has' : 'have'), $values === 1 ? 'was' : 'were');
        }
        foreach ($this->idleBridges as $bridge) {
            $warnings[] = sprintf('The bridge from %s to %s joined nothing: one of its keys has a counterpart, or no row of its own.', KeyTuple::of($bridge->source)->asCsv(), KeyTuple::of($bridge->target)->asCsv());
        }

        return $warnings;
    }

    private static function counted(int $count, string $one, string $many): string
    {
        return number_format($count).' '.($count === 1 ? $one : $many);
    }

    /** @return array<string, mixed> the object that the command line prints and writes */
    public function toArray(): array
    {
        return [
            'rows' => ['source' => $this->source->toArray(), 'target' => $this->target->toArray()],
            'cells' => $this->cells(),
            'key_forgiven' => $this->keyForgiven,
            'columns' => array_map(static fn(array $column): array => ['source' => $column['pair']->source, 'target' => $column['pair']->target, ...array_diff_key($column, ['pair' => true])], $this->columns),
            'patterns' => array_map(fn(Pattern $pattern): array => [
                'source' => $this->columns[$pattern->pairPosition]['pair']->source,
                'target' => $this->columns[$pattern->pairPosition]['pair']->target,
                'class' => $pattern->class->value,
                'cause' => $pattern->cause,
                'facts' => (object) $pattern->facts,
                'cells' => $pattern->cells,
            ], $this->patterns),
            'engine' => EngineVersion::all(),
        ];
    }
}
