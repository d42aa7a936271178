<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Cause\Judgement;
use NineTally\Core\Cause\PatternRules\Moved;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Intake\Batch;

/** Compares the paired cells of two rows that met, and counts what it finds by column pair. */
final class RowComparison
{
    /** Whether rows of equal bytes must be looked at all the same. */
    public readonly bool $readsEqualBytes;

    /**
     * @param  list<ColumnComparison>  $columns  by column pair, in the order of the plan
     * @param  list<int>  $sourcePositions  of the compared cells in an exploded body
     * @param  list<int>  $targetPositions
     */
    public function __construct(
        private readonly array $columns,
        private readonly array $sourcePositions,
        private readonly array $targetPositions,
        private readonly MatchCounts $counts,
        private readonly bool $listsForgiven = false,
    ) {
        $this->readsEqualBytes = array_filter($columns, static fn(ColumnComparison $column): bool => $column->readsEqualBytes) !== [];
    }

    /**
     * @return list<array{int, string, string, array<string, string|int>, string}> as FindingEntry holds cells; empty when the rows agree
     */
    public function compare(string $sourceBody, string $targetBody, int $line): array
    {
        $source = explode(Batch::CELL_END, $sourceBody);
        $target = explode(Batch::CELL_END, $targetBody);
        $waiting = $cells = [];
        foreach ($this->columns as $pair => $column) {
            $sourceCell = $source[$this->sourcePositions[$pair]];
            $targetCell = $target[$this->targetPositions[$pair]];
            if ($sourceCell === $targetCell && ! $column->readsEqualBytes) {
                continue;
            }
            $counts = $this->counts->pairs[$pair];
            $counts->withoutEntry += $column->lacksEntry($sourceCell) ? 1 : 0;
            $judgement = $column->judge($sourceCell, $targetCell);
            if ($judgement->class === CellClass::Identical) {
                continue;
            }
            if ($judgement->class === CellClass::Forgiven) {
                $this->forgive($counts, $judgement, $line, $sourceCell, $targetCell);
                if ($this->listsForgiven) {
                    $cells[$pair] = [$pair, CellClass::Forgiven->value, (string) $judgement->cause?->id, $judgement->cause->facts ?? [], ''];
                }

                continue;
            }
            $counts->cells[$judgement->class->value]++;
            $cells[$pair] = [$pair, $judgement->class->value, (string) $judgement->cause?->id, $judgement->cause->facts ?? [], ''];
            if ($judgement->cause === null || $judgement->class !== CellClass::Changed) {
                $waiting[$pair] = [$judgement, $sourceCell, $targetCell];
            } elseif ($judgement->isOfValue) {
                $counts->evidence->addExplained();
            }
        }
        foreach ($waiting as $pair => [$judgement, $sourceCell, $targetCell]) {
            $moved = $this->moved($pair, $waiting);
            $cells[$pair] = [$pair, $judgement->class->value, (string) $judgement->cause?->id, $judgement->cause->facts ?? [], $moved];
            $this->testify($this->counts->pairs[$pair], $judgement, $moved);
        }

        return array_values($cells);
    }

    private function forgive(PairCounts $counts, Judgement $judgement, int $line, string $source, string $target): void
    {
        $counts->cells['forgiven']++;
        $pattern = $counts->forgiven[$judgement->key] ??= new ForgivenPattern($judgement->cause->id ?? '', $judgement->cause->facts ?? []);
        $pattern->cells++;
        if ($line < $pattern->lastLine || $judgement->apart !== null) {
            $pattern->keep($line, $source, $target, $judgement->apart);
        }
    }

    private function testify(PairCounts $counts, Judgement $judgement, string $moved): void
    {
        if ($judgement->class === CellClass::Changed) {
            $counts->evidence->add($judgement->evidence + ($moved === '' ? [] : [CauseId::Moved->value => [$moved]]));
        } elseif ($moved !== '') {
            $counts->evidence->add([CauseId::Moved->value => [$moved]]);
            $counts->movedBlanks[$judgement->class->value][$moved] = ($counts->movedBlanks[$judgement->class->value][$moved] ?? 0) + 1;
        }
    }

    /**
     * Where the value of a cell went, or came from: another column of the row that differs too.
     *
     * @param  array<int, array{Judgement, string, string}>  $waiting  by column pair: the cells without a cause yet
     * @return string the names of the columns as PatternRules\Moved takes them; '' when the value is nowhere else
     */
    private function moved(int $pair, array $waiting): string
    {
        [, $source, $target] = $waiting[$pair];
        foreach ($waiting as $other => [, $otherSource, $otherTarget]) {
            if ($other === $pair) {
                continue;
            }
            if ($source === $otherTarget && mb_strlen($source) >= Moved::SHORTEST) {
                return $this->columns[$pair]->pair->source.Moved::SEPARATOR.$this->columns[$other]->pair->target;
            }
            if ($target === $otherSource && mb_strlen($target) >= Moved::SHORTEST) {
                return $this->columns[$other]->pair->source.Moved::SEPARATOR.$this->columns[$pair]->pair->target;
            }
        }

        return '';
    }
}
