<?php

declare(strict_types=1);

namespace App\Questions;

use App\Models\Pattern;
use NineTally\Core\Cause\CauseId;

/** The lines of a comparison of two tallies: one for each pattern that either of them has, under the sentence that is its own. */
final class PatternLines
{
    /** @var array<string, PatternLine> */
    private array $lines = [];

    /** @var array{earlier: array<int, PatternLine>, later: array<int, PatternLine>} by the number of the pattern */
    private array $byNumber = ['earlier' => [], 'later' => []];

    public static function ofTallies(int $earlier, int $later): self
    {
        $lines = new self;
        foreach (Pattern::query()->whereIn('tally_id', [$earlier, $later])->orderBy('tally_id')->orderBy('number')->get() as $pattern) {
            $facts = $pattern->facts;
            ksort($facts);
            $line = $lines->lines[
                json_encode([$pattern->pair_id, $pattern->class, $pattern->cause, $facts], JSON_THROW_ON_ERROR)
            ] ??= new PatternLine(
                'cells',
                $pattern->source_column,
                $pattern->cause,
                CauseId::sentenceFor($pattern->cause, $pattern->facts),
            );
            if ($pattern->tally_id === $earlier) {
                $line->earlierPattern = $pattern->number;
                $lines->byNumber['earlier'][$pattern->number] = $line;
            } else {
                $line->laterPattern = $pattern->number;
                $lines->byNumber['later'][$pattern->number] = $line;
            }
        }

        return $lines;
    }

    /** @param 'earlier'|'later' $tally */
    public function ofPattern(string $tally, int $number): PatternLine
    {
        return $this->byNumber[$tally][$number] ?? throw new \LogicException("The {$tally} tally has no pattern {$number}.");
    }

    public function ofClass(string $class): PatternLine
    {
        return $this->lines[$class] ??= new PatternLine('rows', '', $class, $class);
    }

    /** @return list<PatternLine> most of what moved first */
    public function all(): array
    {
        $lines = array_values($this->lines);
        usort(
            $lines,
            static fn(PatternLine $one, PatternLine $other): int => [$other->moved(), $one->column, $one->sentence] <=> [
                $one->moved(), $other->column, $other->sentence,
            ],
        );

        return $lines;
    }
}
