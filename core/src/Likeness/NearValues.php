<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

/**
 * Distinct values of a column of the source, each with those of the target that are most like it: many values may be like one. Values that
 * stand on both sides are alike by themselves, and are not looked for; a value of the target may still be what another one means.
 *
 * @phpstan-type NearValue array{value: string, rows: int, candidates: list<array{value: string, rows: int, score: float}>}
 */
final readonly class NearValues
{
    /** Candidates whose scores lie closer than this are rivals. */
    public const MARGIN = 0.05;

    /**
     * @param  int  $same  values that stand on both sides
     * @param  list<NearValue>  $values  the others, those in most rows first; of equals in the order of their bytes
     */
    private function __construct(public int $same, public array $values) {}

    /**
     * @param  array<array-key, int>  $source  rows by value, without blanks
     * @param  array<array-key, int>  $target
     */
    public static function of(array $source, array $target, LikenessColumn $column, FoldedText $folded = new FoldedText): self
    {
        $others = array_diff_key($source, $target);
        $names = array_map(strval(...), array_keys($target));
        $search = new LikenessSearch([$column], $folded);
        foreach ($names as $name) {
            $search->add([$name]);
        }
        $search->calibrate(array_map(static fn(int|string $value): array => [(string) $value], array_keys($others)));
        $found = [];
        foreach ($others as $value => $rows) {
            $found[] = [
                'value' => (string) $value,
                'rows' => $rows,
                'candidates' => array_map(static fn(array $one): array => [
                    'value' => $names[$one[0]],
                    'rows' => $target[$names[$one[0]]],
                    'score' => round($one[1], 4),
                ], $search->candidates([(string) $value])),
            ];
        }
        usort(
            $found,
            static fn(array $one, array $other): int => $other['rows'] <=> $one['rows'] ?: strcmp($one['value'], $other['value']),
        );

        return new self(count($source) - count($others), $found);
    }

    /** @param NearValue $value whether two of its candidates are so close that nobody should confirm it without a look */
    public static function hasRival(array $value): bool
    {
        return isset($value['candidates'][1]) && $value['candidates'][0]['score'] - $value['candidates'][1]['score'] < self::MARGIN;
    }
}
