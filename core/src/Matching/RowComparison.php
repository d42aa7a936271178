<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CellResult;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Matching\Postings\PostingBuffer;
use NineTally\Core\Matching\Postings\PostingList;
use NineTally\Core\Matching\Spill\FindingEntry;
use NineTally\Core\Row\Sides;

/** Compares the paired cells of two rows that met, and counts what it finds by column pair. */
final class RowComparison
{
    /** Whether rows of equal bytes must be looked at all the same. */
    public readonly bool $readsEqualBytes;

    /** Where rows need not be looked at one by one. */
    public readonly ?RowsInBulk $inBulk;

    /** Whether a rule let a cell of the last two rows pass. */
    public bool $hasForgiven = false;

    /** @var array<int, array<string, PostingList>> by column pair and cause */
    private array $lists = [];

    /**
     * @param  list<ColumnComparison>  $columns  by column pair, in the order of the plan
     * @param  Sides<list<int>>  $positions  of the compared cells in an exploded body
     */
    public function __construct(
        private readonly array $columns,
        private readonly Sides $positions,
        private readonly MatchCounts $counts,
        private readonly MovedValues $movedValues,
        private readonly PostingBuffer $postings,
        public readonly bool $listsForgiven = false,
    ) {
        $this->readsEqualBytes = array_filter($columns, static fn(ColumnComparison $column): bool => $column->readsEqualBytes) !== [];
        $this->inBulk = $listsForgiven ? null : RowsInBulk::where($columns, $positions, $counts, $postings);
    }

    /**
     * @param  \Closure(): array{string, string}  $rows  both whole rows, for a value that is missed may stand in a column that is not
     *     compared
     * @return list<array{int, string, string, array<string, string|int>, string}> as FindingEntry holds cells; empty when the rows agree
     */
    public function compare(string $sourceBody, string $targetBody, int $line, \Closure $rows): array
    {
        $source = explode(Batch::CELL_END, $sourceBody);
        $target = explode(Batch::CELL_END, $targetBody);
        [$sourcePositions, $targetPositions] = $this->positions->both();
        $waiting = $cells = [];
        $this->hasForgiven = false;
        foreach ($this->columns as $pair => $column) {
            $sourceCell = $source[$sourcePositions[$pair]];
            $targetCell = $target[$targetPositions[$pair]];
            if ($sourceCell === $targetCell && ! $column->readsEqualBytes) {
                continue;
            }
            $counts = $this->counts->pairs[$pair];
            if ($column->hasCrosswalk && $column->lacksEntry($sourceCell)) {
                $counts->lackEntry($sourceCell);
            }
            $judgement = $column->classify($sourceCell, $targetCell);
            if ($judgement->class === CellClass::Identical) {
                continue;
            }
            if ($sourceCell === '' || $targetCell === '' || $column->hasBlankTokens) {
                $counts->countBlank($judgement->class, $column->isBlankInSource($sourceCell), $column->isBlankInTarget($targetCell));
            }
            if ($judgement->class === CellClass::Forgiven) {
                $this->forgive($pair, $counts, $judgement, $line, $sourceCell, $targetCell);
                if ($this->listsForgiven) {
                    $cells[$pair] = [
                        $pair,
                        CellClass::Forgiven->value,
                        (string) $judgement->cause?->id,
                        $judgement->cause->facts ?? [],
                        '',
                    ];
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
        $moves =
            $waiting === []
                ? []
                : $this->movedValues->of(array_map(static fn(array $cell): array => [$cell[1], $cell[2]], $waiting), ...$rows());
        foreach ($waiting as $pair => [$judgement, $sourceCell, $targetCell]) {
            $moved = $moves[$pair] ?? '';
            $cells[$pair] = [$pair, $judgement->class->value, (string) $judgement->cause?->id, $judgement->cause->facts ?? [], $moved];
            $this->collect($this->counts->pairs[$pair], $judgement, $moved);
        }

        return array_values($cells);
    }

    private function forgive(int $pair, PairCounts $counts, CellResult $judgement, int $line, string $source, string $target): void
    {
        $counts->cells['forgiven']++;
        $this->hasForgiven = true;
        $pattern = $counts->forgiven($judgement);
        $pattern->cells++;
        ($this->lists[$pair][$judgement->key] ??= $this->postings->of(self::pairPattern($pair, $judgement->key)))->add($line);
        if ($line < $pattern->lastLine || $judgement->apart !== null) {
            $pattern->keep($line, $source, $target, $judgement->apart);
        }
    }

    private function collect(PairCounts $counts, CellResult $judgement, string $moved): void
    {
        if ($judgement->class === CellClass::Changed) {
            $counts->evidence->add($judgement->evidence + ($moved === '' ? [] : [CauseId::Moved->value => [$moved]]));
        } elseif ($moved !== '') {
            $counts->evidence->add([CauseId::Moved->value => [$moved]]);
            $counts->movedBlanks[$judgement->class->value][$moved] = ($counts->movedBlanks[$judgement->class->value][$moved] ?? 0) + 1;
        }
    }

    /** @param string $key by which what is forgiven is counted */
    public static function pairPattern(int $pair, string $key): string
    {
        return "pair {$pair} {$key}";
    }

    /** Cells of the key are posted as those of a pair are. */
    public static function keyPattern(int $column, string $cause): string
    {
        return "key {$column} {$cause}";
    }

    /**
     * What the name of a list of postings says.
     *
     * @return array{isOfKey: bool, position: int, cause: string, facts: array<string, string|int>}
     */
    public static function posted(string $pattern): array
    {
        [$of, $position, $cause, $facts] = [...explode(' ', $pattern, 4), '{}'];
        /** @var array<string, string|int> $known */
        $known = json_decode($facts, true, 8, JSON_THROW_ON_ERROR);

        return ['isOfKey' => $of === 'key', 'position' => (int) $position, 'cause' => $cause, 'facts' => $known];
    }
}
