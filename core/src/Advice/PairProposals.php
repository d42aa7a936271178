<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Proposes which columns belong together, from their names and from what their values are like. Each column is proposed once: the
 * best pair of all is taken first, then the best of those that are left.
 */
final readonly class PairProposals
{
    private const STRONG = 0.72;

    private const LIKELY = 0.5;

    private const WEAK = 0.3;

    /** How much better a pair must be than any other of its columns to be called strong. */
    private const LEAD = 0.08;

    /** From so many distinct values on it tells something that two columns share them. */
    private const MANY_VALUES = 12;

    /**
     * @param  list<ValueSketch>  $source
     * @param  list<ValueSketch>  $target
     * @return list<PairProposal> in the order of the source's columns
     */
    public function of(array $source, array $target): array
    {
        $scores = [];
        foreach ($source as $at => $column) {
            foreach ($target as $other => $otherColumn) {
                $scores[$at][$other] = $this->score($column, $otherColumn);
            }
        }
        $proposals = [];
        foreach ($this->assigned($scores) as [$at, $other]) {
            $score = $scores[$at][$other];
            $rival = max(
                0.0,
                ...array_map(static fn(int $place): float => $place === $other ? 0.0 : $scores[$at][$place], array_keys($scores[$at])),
                ...array_map(static fn(int $place): float => $place === $at ? 0.0 : $scores[$place][$other], array_keys($scores)),
            );
            $strength = match (true) {
                $score >= self::STRONG && $score - $rival >= self::LEAD => 'strong',
                $score >= self::LIKELY => 'likely',
                default => 'weak',
            };
            $proposals[$at] = new PairProposal(
                $source[$at]->name,
                $target[$other]->name,
                $score,
                $strength,
                $this->reasons($source[$at], $target[$other]),
            );
        }
        ksort($proposals);

        return array_values($proposals);
    }

    private function score(ValueSketch $source, ValueSketch $target): float
    {
        $name = ColumnNames::likeness($source->name, $target->name);
        if ($source->isEmpty() || $target->isEmpty()) {
            // Nothing is known but the name.
            return 0.7 * $name;
        }
        $value = $this->valueScore($source, $target);

        // A name that says something is weighed with the values; one that says nothing does not count against them.
        return max($value, 0.5 * $value + 0.5 * $name);
    }

    private function valueScore(ValueSketch $source, ValueSketch $target): float
    {
        $likeness =
            0.45 * $source->overlap($target) +
            0.3 * $source->commonMass($target) +
            0.15 * $source->shapeLikeness($target) +
            0.1 * ($source->kind() === $target->kind() || $source->bothSayYesAndNo($target) ? 1 : 0);
        $blanks = abs($source->blank / max(1, $source->rows) - $target->blank / max(1, $target->rows));
        // A few values, such as yes and no, stand in many columns: alone they are no proof.
        $proof = min(1.0, 0.75 + 0.25 * min($source->distinct(), $target->distinct()) / self::MANY_VALUES);

        return max(0.0, $likeness * $proof - 0.3 * $blanks);
    }

    /**
     * @param  array<int, array<int, float>>  $scores
     * @return list<array{int, int}>
     */
    private function assigned(array $scores): array
    {
        $all = [];
        foreach ($scores as $at => $ofColumn) {
            foreach ($ofColumn as $other => $score) {
                if ($score >= self::WEAK) {
                    $all[] = [$score, $at, $other];
                }
            }
        }
        usort(
            $all,
            static fn(array $one, array $another): int => $another[0] <=> $one[0] ?: [$one[1], $one[2]] <=> [$another[1], $another[2]],
        );
        $pairs = $taken = $takenOther = [];
        foreach ($all as [, $at, $other]) {
            if (! isset($taken[$at]) && ! isset($takenOther[$other])) {
                $pairs[] = [$at, $other];
                $taken[$at] = $takenOther[$other] = true;
            }
        }

        return $pairs;
    }

    /** @return list<string> */
    private function reasons(ValueSketch $source, ValueSketch $target): array
    {
        $name = ColumnNames::likeness($source->name, $target->name);
        $reasons = [
            $source->name === $target->name
                ? 'the same name'
                : ($name >= 0.9
                    ? 'names of the same words'
                    : ($name >= 0.5
                        ? 'names alike'
                        : 'names say nothing')),
        ];
        if ($source->isEmpty() || $target->isEmpty()) {
            return [...$reasons, $source->isEmpty() ? 'the source column is always blank' : 'the target column is always blank'];
        }
        $overlap = (int) floor(100 * $source->overlap($target));
        $reasons[] = $overlap === 0 ? 'no value stands in both' : "{$overlap} % of the values stand in both";
        $reasons[] = $source->bothSayYesAndNo($target)
            ? 'both say yes and no'
            : ($source->kind() === $target->kind()
                ? ['date' => 'both are dates', 'number' => 'both are numbers', 'text' => 'both are text'][$source->kind()] ?? ''
                : "one is {$source->kind()}, the other {$target->kind()}");
        if ($source->commonMass($target) > 0.8) {
            $reasons[] = 'they stand equally often';
        }

        return array_values(array_filter($reasons, static fn(string $reason): bool => $reason !== ''));
    }
}
