<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellFinding;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\PatternDetail;
use NineTally\Core\Comparison\PatternPlace;
use NineTally\Core\Intake\Batch;

/** Groups the findings into patterns as they pass in source order. Holds a pattern each, and 20 examples of it. */
final class PatternCounter
{
    private const EXAMPLES = 20;

    /** Stands for those that are not listed one by one. */
    private const OTHERS = '…';

    /** Beyond this many kinds of letters the rest is counted together. */
    private const BREAKDOWN = 200;

    /**
     * @var array<string, array{number: int, finding: CellFinding, cells: int, examples: array<string, array{source: string,
     *     target: string}>, breakdown: array<string, int>, worth: WorthCount}>
     */
    private array $patterns = [];

    /**
     * @param  string  $detail  what tells cells of one pattern apart; '' where nothing does
     */
    public function place(CellFinding $finding, string $detail = ''): PatternPlace
    {
        $group = implode("\0", [
            $finding->pairPosition,
            $finding->class->value,
            $finding->cause,
            json_encode($finding->facts, JSON_THROW_ON_ERROR),
        ]);
        $pattern = $this->patterns[$group] ?? [
            'number' => count($this->patterns) + 1,
            'finding' => $finding,
            'cells' => 0,
            'examples' => [],
            'breakdown' => [],
            'worth' => new WorthCount,
        ];
        $pattern['cells']++;
        if (count($pattern['examples']) < self::EXAMPLES) {
            $pattern['examples'][$finding->source.Batch::CELL_END.$finding->target] = [
                'source' => $finding->source,
                'target' => $finding->target,
            ];
        }
        if ($finding->difference !== null) {
            $pattern['worth']->add($finding->difference->value);
        }
        if ($detail !== '') {
            $kept = isset($pattern['breakdown'][$detail]) || count($pattern['breakdown']) < self::BREAKDOWN ? $detail : self::OTHERS;
            $pattern['breakdown'][$kept] = ($pattern['breakdown'][$kept] ?? 0) + 1;
        }
        $this->patterns[$group] = $pattern;

        return new PatternPlace($pattern['number'], $pattern['cells']);
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
            new PatternDetail(self::most($pattern['breakdown']), $pattern['worth']->worth()),
        ), array_values($this->patterns));
    }

    /**
     * @param  array<string, int>  $breakdown
     * @return array<string, int> the most frequent first; equally frequent ones by their letters
     */
    private static function most(array $breakdown): array
    {
        ksort($breakdown, SORT_STRING);
        arsort($breakdown);

        return $breakdown;
    }
}
