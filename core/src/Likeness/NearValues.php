<?php

declare(strict_types=1);

namespace NineTally\Core\Likeness;

/**
 * Distinct values of a column of the source, each with those of the target that are most like it, by themselves and by what stands most
 * often beside them: many values may be like one. Values that
 * stand on both sides are alike by themselves, and are not looked for; a value of the target may still be what another one means.
 *
 * @phpstan-type NearValue array{value: string, rows: int, beside: list<string>,
 *     candidates: list<array{value: string, rows: int, beside: list<string>, score: float}>}
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
     * @param  non-empty-list<LikenessColumn>  $columns  the one whose values they are, then those that may be alike beside them
     * @param  bool  $isWithin  whether only values are alike that have something in common in the columns that must be equal
     */
    public static function of(
        DistinctValues $source,
        DistinctValues $target,
        array $columns,
        FoldedText $folded = new FoldedText,
        bool $isWithin = false,
    ): self {
        $all = $source->rows();
        $there = $target->rows();
        $others = array_diff_key($all, $there);
        $names = array_map(strval(...), array_keys($there));
        $search = new LikenessSearch($columns, $folded);
        foreach ($names as $name) {
            $search->add([$name, ...$target->beside($name)]);
        }
        $search->calibrate(array_map(
            static fn(int|string $value): array => [(string) $value, ...$source->beside((string) $value)],
            array_keys($others),
        ));
        $within = $isWithin ? self::within($target, $names) : [];
        $found = [];
        foreach ($others as $value => $rows) {
            $value = (string) $value;
            $found[] = [
                'value' => $value,
                'rows' => $rows,
                'beside' => $source->beside($value),
                'candidates' => array_map(
                    static fn(array $one): array => [
                        'value' => $names[$one[0]],
                        'rows' => $there[$names[$one[0]]],
                        'beside' => $target->beside($names[$one[0]]),
                        'score' => round($one[1], 4),
                    ],
                    $search->candidates(
                        [$value, ...$source->beside($value)],
                        $isWithin ? self::among($source->common($value), $within) : null,
                    ),
                ),
            ];
        }
        usort(
            $found,
            static fn(array $one, array $other): int => $other['rows'] <=> $one['rows'] ?: strcmp($one['value'], $other['value']),
        );

        return new self(count($all) - count($others), $found);
    }

    /**
     * @param  list<string>  $names
     * @return array<string, array<int, true>> numbers of the values of the target, by what they have beside them; under '*' those of which
     *     not all is known
     */
    private static function within(DistinctValues $target, array $names): array
    {
        $within = ['*' => []];
        foreach ($names as $number => $name) {
            $common = $target->common($name);
            foreach ($common === null ? ['*'] : array_map(static fn(string $one): string => "={$one}", $common) as $beside) {
                $within[$beside][$number] = true;
            }
        }

        return $within;
    }

    /**
     * @param  list<string>|null  $common
     * @param  array<string, array<int, true>>  $within
     * @return array<int, true>|null null for all
     */
    private static function among(?array $common, array $within): ?array
    {
        if ($common === null) {
            return null;
        }
        $among = $within['*'];
        foreach ($common as $beside) {
            $among += $within["={$beside}"] ?? [];
        }

        return $among;
    }

    /** @param NearValue $value whether two of its candidates are so close that nobody should confirm it without a look */
    public static function hasRival(array $value): bool
    {
        return isset($value['candidates'][1]) && $value['candidates'][0]['score'] - $value['candidates'][1]['score'] < self::MARGIN;
    }
}
