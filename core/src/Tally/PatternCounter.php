<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\PatternDetail;
use NineTally\Core\Comparison\PatternPlace;
use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Intake\Batch;

/** Groups the findings into patterns as they pass in source order. Holds a pattern each, and 20 examples of it. */
final class PatternCounter
{
    private const EXAMPLES = 20;

    /** Stands for those that are not listed one by one. */
    private const OTHERS = '…';

    /** Beyond this many kinds of letters the rest is counted together. */
    private const BREAKDOWN = 200;

    /** @var array<string, CountedPattern> */
    private array $patterns = [];

    /**
     * @param  int  $pair  position of the column pair
     * @param  array<string, string|int>  $facts
     * @param  string  $detail  what tells cells of one pattern apart; '' where nothing does
     */
    public function place(
        int $pair,
        CellClass $class,
        string $cause,
        array $facts,
        string $source,
        string $target,
        ?SignedDifference $difference,
        string $detail = '',
    ): PatternPlace {
        $known = $facts === [] ? '' : json_encode($facts, JSON_THROW_ON_ERROR);
        $group = "{$pair}\0{$class->value}\0{$cause}\0{$known}";
        $pattern = $this->patterns[$group] ??= new CountedPattern(count($this->patterns) + 1, $pair, $class, $cause, $facts);
        $pattern->cells++;
        if (count($pattern->examples) < self::EXAMPLES) {
            $pattern->examples[$source.Batch::CELL_END.$target] = ['source' => $source, 'target' => $target];
        }
        if ($difference !== null) {
            $pattern->worth->add($difference->value);
        }
        if ($detail !== '') {
            $kept = isset($pattern->breakdown[$detail]) || count($pattern->breakdown) < self::BREAKDOWN ? $detail : self::OTHERS;
            $pattern->breakdown[$kept] = ($pattern->breakdown[$kept] ?? 0) + 1;
        }

        return new PatternPlace($pattern->number, $pattern->cells);
    }

    /** @return list<Pattern> */
    public function patterns(): array
    {
        return array_map(static fn(CountedPattern $pattern): Pattern => new Pattern(
            $pattern->number,
            $pattern->pair,
            $pattern->class,
            $pattern->cause,
            $pattern->facts,
            $pattern->cells,
            array_values($pattern->examples),
            new PatternDetail(self::most($pattern->breakdown), $pattern->worth->worth()),
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
