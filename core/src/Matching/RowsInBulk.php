<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\CellResult;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Row\Sides;

/**
 * Compares hundreds of rows at once, and counts those whose every difference is forgiven; others are left to {@see RowComparison}, which
 * says of each row what this says of many. The cells that differ are found by one function in C over all cells of these rows, and nothing
 * is made for a row: half of the time of a row by itself, where a form differs in each.
 */
final class RowsInBulk
{
    /** So many that all cells of both sides stay in the cache of a processor. */
    private const ROWS = 256;

    /** Where most rows had to be left, so many times as many are left without a look. */
    private const RESTS = 16;

    private int $resting = 0;

    /** Rows that were counted because something of them is forgiven, in the last look. */
    public int $byRule = 0;

    /** @var array<int, int> position => column pair, where cells of equal bytes have to be read too */
    private readonly array $readAlways;

    /** @var array<int, true> column pairs of which nothing but the causes is counted */
    private readonly array $isPlain;

    /**
     * @param  list<ColumnComparison>  $columns  by column pair
     * @param  array<int, int>  $pairs  position in an exploded body => column pair
     */
    private function __construct(
        private readonly array $columns,
        private readonly array $pairs,
        private readonly MatchCounts $counts,
        private readonly PostingBuffer $postings,
    ) {
        $this->readAlways = array_filter($pairs, static fn(int $pair): bool => $columns[$pair]->readsEqualBytes);
        $this->isPlain = array_fill_keys(
            array_keys(
                array_filter($columns, static fn(ColumnComparison $column): bool => ! $column->hasBlankTokens && ! $column->hasCrosswalk),
            ),
            true,
        );
    }

    /**
     * @param  list<ColumnComparison>  $columns  by column pair, in the order of the plan
     * @param  Sides<list<int>>  $positions  of the compared cells in an exploded body
     * @return self|null null where nothing is forgiven, or cells of a pair stand in different places
     */
    public static function where(array $columns, Sides $positions, MatchCounts $counts, PostingBuffer $postings): ?self
    {
        $forgives = static fn(ColumnComparison $column): bool => $column->pair->forgives !== [] || $column->hasCrosswalk;
        $pairs = array_flip($positions->source);

        return array_filter($columns, $forgives) !== [] && $positions->source === $positions->target && count($pairs) === count($columns)
            ? new self($columns, $pairs, $counts, $postings)
            : null;
    }

    /**
     * @param  list<string>  $source  bodies
     * @param  list<string>  $target  of the rows that they met
     * @param  list<int>  $lines  of the source
     * @return list<int> places of rows that were not counted, and have to be compared by themselves
     */
    public function leftOver(array $source, array $target, array $lines): array
    {
        $left = [];
        $this->byRule = 0;
        foreach (array_chunk($lines, self::ROWS) as $nth => $some) {
            $from = $nth * self::ROWS;
            if ($this->resting > 0) {
                $this->resting--;
                $ofChunk = array_keys($some);
            } else {
                $ofChunk = $this->compared(array_slice($source, $from, self::ROWS), array_slice($target, $from, self::ROWS), $some);
                $this->resting = 2 * count($ofChunk) > count($some) ? self::RESTS : 0;
            }
            foreach ($ofChunk as $place) {
                $left[] = $from + $place;
            }
        }

        return $left;
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @param  non-empty-list<int>  $lines
     * @return list<int>
     */
    private function compared(array $source, array $target, array $lines): array
    {
        $cells = explode(Batch::CELL_END, implode(Batch::CELL_END, $source));
        $others = explode(Batch::CELL_END, implode(Batch::CELL_END, $target));
        $width = intdiv(count($cells), count($lines));
        if (count($cells) !== count($others)) {
            return array_keys($lines);
        }
        $left = $byRule = $found = $results = [];
        $looked = array_diff_assoc($cells, $others);
        foreach ($this->readAlways as $position => $pair) {
            for ($at = $position; $at < count($cells); $at += $width) {
                $looked[$at] = $cells[$at];
            }
        }
        foreach ($looked as $at => $cell) {
            $pair = $this->pairs[$at % $width] ?? null;
            if ($pair === null) {
                continue;
            }
            $row = intdiv($at, $width);
            $judgement = isset($this->isPlain[$pair]) && $cell !== '' && $others[$at] !== ''
                ? $this->columns[$pair]->classify($cell, $others[$at])
                : $this->judge($this->columns[$pair], $cell, $others[$at]);
            if ($judgement?->class === CellClass::Forgiven && $judgement->apart === null) {
                $byRule[$row] = $row;
                $found[$pair][$judgement->key][] = $at;
                $results[$pair][$judgement->key] = $judgement;
            } elseif ($judgement?->class !== CellClass::Identical) {
                $left[$row] = $row;
            }
        }
        $this->byRule += count(array_diff_key($byRule, $left));
        foreach ($found as $pair => $ofPair) {
            foreach ($ofPair as $key => $places) {
                $counted = $left === []
                    ? $places
                    : array_values(array_filter($places, static fn(int $at): bool => ! isset($left[intdiv($at, $width)])));
                if ($counted !== []) {
                    $this->count($pair, $results[$pair][$key], $counted, $width, $lines, $cells, $others);
                }
            }
        }
        sort($left);

        return $left;
    }

    /** @return CellResult|null null where more is counted than that it is forgiven: blank cells, and what lacks an entry */
    private function judge(ColumnComparison $column, string $cell, string $other): ?CellResult
    {
        $isCounted =
            $cell === '' ||
            $other === '' ||
            $column->isBlankInSource($cell) ||
            $column->isBlankInTarget($other) ||
            $column->lacksEntry($cell);

        return $isCounted ? null : $column->classify($cell, $other);
    }

    /**
     * @param  non-empty-list<int>  $places  among all cells, ascending
     * @param  list<int>  $lines
     * @param  list<string>  $cells
     * @param  list<string>  $others
     */
    private function count(int $pair, CellResult $result, array $places, int $width, array $lines, array $cells, array $others): void
    {
        $counts = $this->counts->pairs[$pair];
        $counts->cells['forgiven'] += count($places);
        $pattern = $counts->forgiven($result);
        $pattern->cells += count($places);
        $ofPattern = [];
        foreach ($places as $at) {
            $ofPattern[] = $line = $lines[intdiv($at, $width)];
            if ($line < $pattern->lastLine) {
                $pattern->keep($line, $cells[$at], $others[$at], null);
            }
        }
        $this->postings->of(RowComparison::pairPattern($pair, $result->key))->addAll($ofPattern);
    }
}
