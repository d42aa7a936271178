<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Intake\Batch;

/** Groups the findings into patterns as they pass in source order. Holds a pattern each, and 20 examples of it. */
final class PatternCounter
{
    private const EXAMPLES = 20;

    /** @var array<string, array{number: int, finding: CellFinding, cells: int, examples: array<string, array{source: string, target: string}>}> */
    private array $patterns = [];

    /** @return array{int, int} the number of the pattern, and the finding's ordinal in it, both from 1 */
    public function place(CellFinding $finding): array
    {
        $group = implode("\0", [$finding->pairPosition, $finding->class->value, $finding->cause, json_encode($finding->facts, JSON_THROW_ON_ERROR)]);
        $pattern = $this->patterns[$group] ?? ['number' => count($this->patterns) + 1, 'finding' => $finding, 'cells' => 0, 'examples' => []];
        $pattern['cells']++;
        if (count($pattern['examples']) < self::EXAMPLES) {
            $pattern['examples'][$finding->source.Batch::CELL_END.$finding->target] = ['source' => $finding->source, 'target' => $finding->target];
        }
        $this->patterns[$group] = $pattern;

        return [$pattern['number'], $pattern['cells']];
    }

    /** @return list<Pattern> */
    public function patterns(): array
    {
        return array_map(static fn(array $pattern): Pattern => new Pattern(
            $pattern['number'],
            $pattern['finding']->pairPosition,
            $pattern['finding']->class,
            $pattern['finding']->cause,
            $pattern['finding']->facts,
            $pattern['cells'],
            array_values($pattern['examples']),
        ), array_values($this->patterns));
    }
}
