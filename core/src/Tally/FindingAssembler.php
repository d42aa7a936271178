<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\ColumnDecision;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\PatternPlace;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Figures\ValueFigures;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** Makes findings of what was written aside, once the causes of whole columns can be decided, and groups them into patterns. */
final class FindingAssembler
{
    /** @var list<ColumnDecision> by column pair */
    private readonly array $decisions;

    /** @var Sides<list<int>> of the compared columns, by column pair */
    private readonly Sides $positions;

    /** @var Sides<list<int>> */
    private readonly Sides $keyPositions;

    private readonly PlanComparisons $planComparisons;

    private PatternCounter $patterns;

    /** Of cells that a rule lets pass: they are in no pattern of findings. */
    private readonly PatternPlace $nowhere;

    public readonly RowSlices $slices;

    private readonly BytesOrdinals $ordinals;

    /**
     * @param  Sides<Reader>  $readers
     * @param  list<ColumnComparison>  $comparisons  by column pair
     * @param  array<string, LeftOutKeys>  $leftOutKeys  by side, where steps left rows out
     */
    public function __construct(
        private readonly Plan $plan,
        private readonly Sides $readers,
        private readonly array $comparisons,
        private readonly CauseCatalogue $catalogue,
        private readonly MatchCounts $counts,
        private readonly ValueCounts $values,
        private readonly array $leftOutKeys = [],
        private readonly bool $listsForgiven = false,
    ) {
        $this->planComparisons = new PlanComparisons($plan, $catalogue);
        $this->decisions = array_map(static fn($pair): ColumnDecision => $pair->evidence->decide($catalogue), $counts->pairs);
        $this->positions = Sides::each(
            static fn(Side $side): array => $readers->of($side)->columns()->positionsOf($plan->pairedNames($side)),
        );
        $this->keyPositions = Sides::each(
            static fn(Side $side): array => $readers->of($side)->columns()->positionsOf($plan->keyNames($side)),
        );
        $this->patterns = new PatternCounter;
        $this->nowhere = new PatternPlace;
        $this->slices = new RowSlices;
        $this->ordinals = new BytesOrdinals;
    }

    /** Of a slice more is kept than is told. */
    public function ofSlice(): self
    {
        $this->patterns = PatternCounter::ofSlice();

        return $this;
    }

    public function slice(int $findings): MergedSlice
    {
        return new MergedSlice($this->patterns, $this->values, $this->slices, $findings);
    }

    /** What was assembled elsewhere, of a slice that comes behind these. */
    public function take(MergedSlice $later): void
    {
        $this->patterns->take($later->patterns);
        $this->values->take($later->values);
        $this->slices->take($later->rows);
    }

    /** @param int $linesBefore what the entry's lines are counted from */
    public function assemble(FindingEntry $entry, int $linesBefore, int $sequence): RowFinding
    {
        $isOfTarget = $entry->side === Side::Target;
        $side = $isOfTarget ? $this->readers->target : $this->readers->source;
        $source = $entry->source === null ? null : $this->record($this->readers->source, $linesBefore + $entry->line, $entry->source);
        $target =
            $entry->target === null
                ? null
                : $this->record($this->readers->target, $isOfTarget ? $linesBefore + $entry->line : $entry->targetLine, $entry->target);
        [$reason, $reasonFacts] = $this->reason($entry);
        $cells = $entry->cells === [] ? [] : $this->cells($entry, $source->cells ?? [], $target->cells ?? []);
        $differing = $forgiven = [];
        foreach ($cells as $cell) {
            if ($cell->class === CellClass::Forgiven) {
                $forgiven[] = $cell;
            } else {
                $differing[] = $cell;
            }
        }

        $finding = new RowFinding(
            sequence: $sequence,
            ordinal: $entry->class === RowClass::Unkeyed || $entry->class === RowClass::Refused
                ? $this->ordinals->next($entry)
                : $entry->ordinal,
            class: $entry->class,
            side: $entry->side,
            key: $entry->class === RowClass::Refused ? null : KeyTuple::fromBytes($entry->key),
            source: $source,
            target: $target,
            rowsOfKey: ['source' => $entry->sourceRows, 'target' => $entry->targetRows],
            cells: $differing,
            refused: $entry->refused === null ? null : $this->refused($side->place($linesBefore + $entry->line), $entry->refused),
            forgiven: $forgiven,
            keyForgiven: $this->keyForgiven($entry, $source, $target),
            kept: $entry->keptLine === null ? null : $side->place($entry->keptLine),
            reason: $reason,
            reasonFacts: $reasonFacts,
            isBridged: $entry->isBridged,
            deliveredKey: $this->deliveredKey($source, $target),
        );
        $this->values->see($finding);
        if ($finding->class !== RowClass::Agreed) {
            $this->slices->see($finding);
        }

        return $finding;
    }

    /** @return array<int, string> by column of the key: the cause that it lets pass here; asked for only where that is listed */
    private function keyForgiven(FindingEntry $entry, ?RowRecord $source, ?RowRecord $target): array
    {
        if (! $this->listsForgiven || $source === null || $target === null || $entry->isBridged) {
            return [];
        }
        return $this->planComparisons->forgivenInKey(
            $source->cellsAt($this->keyPositions->source),
            $target->cellsAt($this->keyPositions->target),
        );
    }

    /** @return array{RowReason|null, array<string, string|int>} why it is in its class, where that is known, with the facts of it */
    private function reason(FindingEntry $entry): array
    {
        $leftOut = $entry->reason !== null ? null : match ($entry->class) {
            RowClass::Missing => ($this->leftOutKeys['target'] ?? null)?->step($entry->key),
            RowClass::Extra => ($this->leftOutKeys['source'] ?? null)?->step($entry->key),
            default => null,
        };

        return [$leftOut === null ? $entry->reason : RowReason::LeftOut, $leftOut ?? []];
    }

    private function record(Reader $reader, int $line, string $row): RowRecord
    {
        $place = $reader->place($line);

        return new RowRecord($place->line, explode(Batch::CELL_END, $row), $place->part);
    }

    /** @param array{reason: string, facts: array<string, string|int>, raw: string, digest: string} $refused */
    private function refused(RecordPlace $place, array $refused): RefusedRecord
    {
        return RefusedRecord::restored($place->line, $refused, $place->part);
    }

    /** @return list<Pattern> those of findings in the order in which they first occur, then what was forgiven, in the order of the plan */
    public function patterns(): array
    {
        $patterns = $this->patterns->patterns();
        foreach ($this->counts->pairs as $position => $counts) {
            ksort($counts->forgiven);
            foreach ($counts->forgiven as $forgiven) {
                $patterns[] = $forgiven->pattern(count($patterns) + 1, $position);
            }
        }

        return $patterns;
    }

    /**
     * @return list<array{pair: ColumnPair, compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int,
     *     values: ValueFigures, altered: array{source: int, target: int}}> cells of the pair, what became of its values, and how many of
     *     each side the steps altered
     */
    public function columns(): array
    {
        $columns = [];
        $altered = $this->readers->map(
            static fn(Reader $reader): array => $reader instanceof PreparedReader ? $reader->ledger->alteredOf() : [],
        );
        foreach ($this->plan->columnPairs as $position => $pair) {
            $cells = $this->counts->pairs[$position]->cells;
            foreach ($this->counts->pairs[$position]->movedBlanks as $class => $moves) {
                foreach ($moves as $move => $count) {
                    // A value that stands in another column was not lost: its blank cell is changed.
                    if ($this->decisions[$position]->cause(CauseId::Moved, [$move]) !== null) {
                        $cells[$class] -= $count;
                        $cells['changed'] += $count;
                    }
                }
            }
            ['forgiven' => $forgiven, 'changed' => $changed, 'blanked' => $blanked, 'filled' => $filled] = $cells;
            $identical = $this->counts->compared - array_sum($cells);
            $values = $this->values->of(
                $position,
                ['identical' => $identical, 'forgiven' => $forgiven, 'changed' => $changed, 'blanked' => $blanked, 'filled' => $filled],
                $this->counts->pairs[$position],
            );
            $columns[] = [
                'pair' => $pair,
                'compared' => $this->counts->compared,
                'identical' => $identical,
                'forgiven' => $forgiven,
                'changed' => $changed,
                'blanked' => $blanked,
                'filled' => $filled,
                'values' => $values,
                'altered' => ['source' => $altered->source[$pair->source] ?? 0, 'target' => $altered->target[$pair->target] ?? 0],
            ];
        }

        return $columns;
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<CellFinding>
     */
    private function cells(FindingEntry $entry, array $source, array $target): array
    {
        $cells = [];
        foreach ($entry->cells as [$pair, $class, $cause, $facts, $moved]) {
            $sourceCell = $source[$this->positions->source[$pair]];
            $targetCell = $target[$this->positions->target[$pair]];
            $class = CellClass::from($class);
            if ($cause === '') {
                $settled = $this->comparisons[$pair]->resolve($sourceCell, $targetCell, $moved, $this->decisions[$pair]);
                [$cause, $facts] = [$settled->id, $settled->facts];
            } elseif ($moved !== '' && ($settled = $this->decisions[$pair]->cause(CauseId::Moved, [$moved])) !== null) {
                [$class, $cause, $facts] = [CellClass::Changed, $settled->id, $settled->facts];
            }
            $difference = $this->comparisons[$pair]->difference($sourceCell, $targetCell);
            $letters = $cause === CauseId::NearText->value ? $this->letters($sourceCell, $targetCell) : '';
            $place =
                $class === CellClass::Forgiven
                    ? $this->nowhere
                    : $this->patterns->place($pair, $class, $cause, $facts, $sourceCell, $targetCell, $difference, $letters);
            $cells[] = new CellFinding($pair, $class, $cause, $facts, $sourceCell, $targetCell, $difference, $place);
        }

        return $cells;
    }

    /** @return string which letters became which: the breakdown of a pattern of texts that are near each other */
    private function letters(string $source, string $target): string
    {
        return implode(
            ' + ',
            array_map(static fn(array $edit): string => "{$edit[0]} > {$edit[1]}", $this->catalogue->letters($source, $target)),
        );
    }

    private function deliveredKey(?RowRecord $source, ?RowRecord $target): ?KeyTuple
    {
        $side = $source !== null ? Side::Source : Side::Target;
        $cells = ($source ?? $target)?->cells;
        if ($cells === null) {
            return null;
        }
        return KeyTuple::of(array_map(static fn(int $position): string => $cells[$position], $this->keyPositions->of($side)));
    }
}
