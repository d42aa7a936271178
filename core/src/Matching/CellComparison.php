<?php

declare(strict_types=1);

namespace NineTally\Core\Matching;

use NineTally\Core\Cause\Cause;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Row\KeyTuple;

/** Compares the paired cells of two rows, and counts the cell classes by column pair. */
final class CellComparison
{
    /** The same few value pairs differ again and again in a column; a memo of them spares the catalogue. */
    private const MEMO_SIZE = 1_000;

    /** @var array<int, array{changed: int, blanked: int, filled: int}> by pair position */
    private array $differing = [];

    /** @var array<int, array<string, Cause>> by pair position, then by the two values */
    private array $memo = [];

    private int $rows = 0;

    /**
     * @param  list<int>  $sourcePositions  of the compared cells, in the column order of the plan
     * @param  list<int>  $targetPositions
     */
    public function __construct(private readonly array $sourcePositions, private readonly array $targetPositions, private readonly CauseCatalogue $catalogue)
    {
        foreach (array_keys($sourcePositions) as $pair) {
            $this->differing[$pair] = ['changed' => 0, 'blanked' => 0, 'filled' => 0];
            $this->memo[$pair] = [];
        }
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<CellFinding> in the column order of the plan; empty when the rows agree
     */
    public function compare(array $source, array $target): array
    {
        $this->rows++;
        $findings = [];
        foreach ($this->sourcePositions as $pair => $position) {
            $sourceCell = $source[$position];
            $targetCell = $target[$this->targetPositions[$pair]];
            if ($sourceCell !== $targetCell) {
                $findings[] = $this->finding($pair, $sourceCell, $targetCell);
            }
        }

        return $findings;
    }

    /** @return array<int, array{compared: int, identical: int, forgiven: int, changed: int, blanked: int, filled: int}> by pair position */
    public function counts(): array
    {
        return array_map(fn(array $differing): array => [
            'compared' => $this->rows,
            'identical' => $this->rows - array_sum($differing),
            'forgiven' => 0,
            ...$differing,
        ], $this->differing);
    }

    private function finding(int $pair, string $source, string $target): CellFinding
    {
        $values = $source.KeyTuple::SEPARATOR.$target;
        $cause = $this->memo[$pair][$values] ?? $this->catalogue->explain(new CellPair($source, $target));
        if (count($this->memo[$pair]) < self::MEMO_SIZE) {
            $this->memo[$pair][$values] = $cause;
        }
        $class = match ($cause->ids[0]) {
            CauseId::Blanked => CellClass::Blanked,
            CauseId::Filled => CellClass::Filled,
            default => CellClass::Changed,
        };
        $this->differing[$pair][$class->value]++;

        return new CellFinding($pair, $class, $cause->id(), $cause->facts, $source, $target);
    }
}
