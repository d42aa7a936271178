<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Figures\UnbalancedTally;
use NineTally\Core\Figures\ValueFigures;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\PairCounts;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Reading;

/**
 * Counts the values of rows that were not compared as their findings pass, and holds both sides' blank cells against each other: what
 * reading counted on the source and on the target has to leave the same number of cells that are blank on both.
 */
final class ValueCounts
{
    private const NOT_COMPARED = [RowClass::Missing, RowClass::Extra, RowClass::Repeated, RowClass::Unkeyed];

    /** @var array{source: array<int, int>, target: array<int, int>} column pair => values of rows that were not compared, with blanks */
    private array $values = ['source' => [], 'target' => []];

    /** @var array{source: int, target: int} */
    private array $rows = ['source' => 0, 'target' => 0];

    /** @var array{source: int, target: int} those of them in which every cell has a value */
    private array $rowsWithoutBlank = ['source' => 0, 'target' => 0];

    /** @var array{source: bool, target: bool} */
    private readonly array $hasTokens;

    /**
     * @param  array{source: list<int>, target: list<int>}  $positions  of the compared columns, by column pair
     * @param  array{source: list<Reading>, target: list<Reading>}  $readings
     * @param  array{source: array<int, int>, target: array<int, int>}  $blanks  column pair => cells without a value, of all prepared rows
     */
    public function __construct(private readonly array $positions, private readonly array $readings, private readonly array $blanks)
    {
        $this->hasTokens = array_map(
            static fn(array $ofSide): bool => array_filter($ofSide, static fn(Reading $reading): bool => $reading->hasBlankTokens()) !== [],
            $readings,
        );
    }

    public function see(RowFinding $row): void
    {
        $record = $row->record();
        if ($record === null || $row->side === null || ! in_array($row->class, self::NOT_COMPARED, true)) {
            return;
        }
        $side = $row->side->value;
        $this->rows[$side]++;
        if (! $this->hasTokens[$side] && ! in_array('', $record->cells, true)) {
            $this->rowsWithoutBlank[$side]++;

            return;
        }
        foreach ($this->positions[$side] as $pair => $position) {
            if (! $this->readings[$side][$pair]->isBlank($record->cells[$position])) {
                $this->values[$side][$pair] = ($this->values[$side][$pair] ?? 0) + 1;
            }
        }
    }

    /**
     * A row that was not compared, as bytes.
     *
     * @return bool whether it was counted: all of its cells have a value, and no token means none
     */
    public function seeWithoutBlank(Side $side, string $row): bool
    {
        $isCounted =
            ! $this->hasTokens[$side->value] &&
            $row !== '' &&
            $row[0] !== Batch::CELL_END &&
            $row[-1] !== Batch::CELL_END &&
            ! str_contains($row, Batch::CELL_END.Batch::CELL_END);
        if ($isCounted) {
            $this->rows[$side->value]++;
            $this->rowsWithoutBlank[$side->value]++;
        }

        return $isCounted;
    }

    /** Those of a slice that comes behind these. */
    public function take(self $later): void
    {
        foreach (['source', 'target'] as $side) {
            $this->rows[$side] += $later->rows[$side];
            $this->rowsWithoutBlank[$side] += $later->rowsWithoutBlank[$side];
            foreach ($later->values[$side] as $pair => $values) {
                $this->values[$side][$pair] = ($this->values[$side][$pair] ?? 0) + $values;
            }
        }
    }

    /**
     * @param  array{identical: int, forgiven: int, changed: int, blanked: int, filled: int}  $cells
     *
     * @throws UnbalancedTally when the two sides' blank cells do not fit together
     */
    public function of(int $pair, array $cells, PairCounts $counts): ValueFigures
    {
        [$fromSource, $fromTarget] = array_map(fn(Side $side): int => $this->blankOnBoth($side->value, $pair, $counts), Side::cases());
        if ($fromSource !== $fromTarget) {
            throw UnbalancedTally::inEquation('cells blank on both sides, by the source and by the target', $fromSource, $fromTarget);
        }
        $identicalBlanks = $fromSource - $counts->blankOnBoth['forgiven'] - $counts->blankOnBoth['changed'];

        return new ValueFigures(
            right: $cells['identical'] - $identicalBlanks + $cells['forgiven'] - $counts->blankOnBoth['forgiven'],
            differing: $cells['changed'] - $counts->blankOnBoth['changed'],
            blanked: $cells['blanked'],
            filled: $cells['filled'],
            goneWithRow: $this->valuesOf('source', $pair),
            cameWithRow: $this->valuesOf('target', $pair),
            blankOnBoth: $fromSource,
        );
    }

    /** @param 'source'|'target' $side */
    private function valuesOf(string $side, int $pair): int
    {
        return $this->rowsWithoutBlank[$side] + ($this->values[$side][$pair] ?? 0);
    }

    /** @param 'source'|'target' $side */
    private function blankOnBoth(string $side, int $pair, PairCounts $counts): int
    {
        $ofNotCompared = $this->rows[$side] - $this->valuesOf($side, $pair);

        return ($this->blanks[$side][$pair] ?? 0) - $ofNotCompared - $counts->blankOnOneSide[$side];
    }
}
