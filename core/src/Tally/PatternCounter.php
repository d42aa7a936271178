<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Comparison\PatternDetail;
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

    private const BREAKDOWN_OF_SLICE = 20_000;

    /** @var array<string, CountedPattern> */
    private array $patterns = [];

    /** @param int $kindsOfLetters more than so many are counted together */
    public function __construct(private readonly int $kindsOfLetters = self::BREAKDOWN) {}

    /** Of a slice: more are kept than are told, for which of them are told is known when all slices are. */
    public static function ofSlice(): self
    {
        return new self(self::BREAKDOWN_OF_SLICE);
    }

    /** Whether everything that the patterns of all slices need is still known. */
    public function isWhole(): bool
    {
        foreach ($this->patterns as $pattern) {
            if (isset($pattern->breakdown[self::OTHERS])) {
                return false;
            }
        }

        return true;
    }

    /** Those of a slice that comes behind these. */
    public function take(self $later): void
    {
        foreach ($later->patterns as $group => $found) {
            $pattern = $this->patterns[$group] ??= new CountedPattern(
                count($this->patterns) + 1,
                $found->pair,
                $found->class,
                $found->cause,
                $found->facts,
            );
            $pattern->cells += $found->cells;
            foreach ($found->examples as $both => $example) {
                if (count($pattern->examples) < self::EXAMPLES) {
                    $pattern->examples[$both] = $example;
                }
            }
            $pattern->worth->take($found->worth);
            foreach ($found->breakdown as $detail => $cells) {
                $this->breakDown($pattern, (string) $detail, $cells);
            }
        }
    }

    private function breakDown(CountedPattern $pattern, string $detail, int $cells): void
    {
        $kept = isset($pattern->breakdown[$detail]) || count($pattern->breakdown) < $this->kindsOfLetters ? $detail : self::OTHERS;
        $pattern->breakdown[$kept] = ($pattern->breakdown[$kept] ?? 0) + $cells;
    }

    /**
     * @param  int  $pair  position of the column pair
     * @param  array<string, string|int>  $facts
     * @param  string  $detail  what tells cells of one pattern apart; '' where nothing does
     * @return CountedPattern of whose cells this is the last so far
     */
    public function count(
        int $pair,
        CellClass $class,
        string $cause,
        array $facts,
        string $source,
        string $target,
        ?SignedDifference $difference,
        string $detail = '',
    ): CountedPattern {
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
            $this->breakDown($pattern, $detail, 1);
        }

        return $pattern;
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
