<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\ColumnDecision;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\PatternPlace;
use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Comparison\RowReason;
use NineTally\Core\Comparison\RowRecord;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\MatchCounts;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Plan\Plan;
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

    /** @return PlainFindings|null null where it is told of every row which step left its counterpart out, or what it was forgiven */
    public function plain(PlainLines $lines): ?PlainFindings
    {
        return $this->leftOutKeys !== [] || $this->listsForgiven ? null : new PlainFindings(
            $this->readers,
            $this->comparisons,
            $this->positions,
            $this->keyPositions,
            $this->patterns,
            $this->values,
            $this->slices,
            $lines,
        );
    }

    /** @param int $linesBefore what the entry's lines are counted from */
    public function assemble(FindingEntry $entry, int $linesBefore, int $sequence): RowFinding
    {
        $isOfTarget = $entry->side === Side::Target;
        $side = $isOfTarget ? $this->readers->target : $this->readers->source;
        $source = $entry->source === null ? null : $this->record($this->readers->source, $linesBefore + $entry->line, $entry->source);
        $targetLine = $isOfTarget ? $linesBefore + $entry->line : $entry->targetLine;
        $target = $entry->target === null ? null : $this->record($this->readers->target, $targetLine, $entry->target);
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

        $key = $entry->class === RowClass::Refused ? null : KeyTuple::fromBytes($entry->key);
        $hasNoKey = $entry->class === RowClass::Unkeyed || $entry->class === RowClass::Refused;
        $finding = new RowFinding(
            sequence: $sequence,
            ordinal: $hasNoKey ? $this->ordinals->next($entry) : $entry->ordinal,
            class: $entry->class,
            side: $entry->side,
            key: $key,
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
            deliveredKey: $this->deliveredKey($key, $source, $target),
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

    public function columns(): ColumnFigures
    {
        return new ColumnFigures($this->plan, $this->readers, $this->counts, $this->values, $this->decisions);
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
            $difference = $this->comparisons[$pair]->difference($sourceCell, $targetCell, $cause);
            $letters = $cause === CauseId::NearText->value ? $this->letters($sourceCell, $targetCell) : '';
            $pattern = $class === CellClass::Forgiven
                ? null
                : $this->patterns->count($pair, $class, $cause, $facts, $sourceCell, $targetCell, $difference, $letters);
            $place = $pattern === null ? $this->nowhere : new PatternPlace($pattern->number, $pattern->cells);
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

    /** @param KeyTuple|null $key canonical; most often nothing was taken away from it */
    private function deliveredKey(?KeyTuple $key, ?RowRecord $source, ?RowRecord $target): ?KeyTuple
    {
        $cells = ($source ?? $target)?->cells;
        if ($cells === null) {
            return null;
        }
        $delivered = [];
        foreach ($source !== null ? $this->keyPositions->source : $this->keyPositions->target as $position) {
            $delivered[] = $cells[$position];
        }

        return $key?->cells === $delivered ? $key : KeyTuple::of($delivered);
    }
}
