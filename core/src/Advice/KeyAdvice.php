<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/** Advises keys from samples of both sides, the most likely one first. */
final readonly class KeyAdvice
{
    private const EXAMPLES = 50;

    private const ADVISED = 8;

    /**
     * @param  list<string>  $names  of the source columns, pair by pair
     * @param  list<array{source: list<string>, target: list<string>}>  $columns  the cells of all rows of the samples, pair by pair
     * @param  (callable(int, int): void)|null  $onProgress
     * @return list<AdvisedKey>
     */
    public function keys(array $names, array $columns, ?callable $onProgress = null): array
    {
        $keys = (new KeySearch)->keys($columns, $onProgress);
        if ($keys === []) {
            $keys = (new KeySearch(KeySearch::AT_ALL))->keys($columns, $onProgress);
        }
        $ranking = self::ranking($names, $columns);
        usort(
            $keys,
            static fn(AdvisedKey $one, AdvisedKey $other): int => $ranking->score($other->places) <=> $ranking->score($one->places),
        );

        return array_slice($keys, 0, self::ADVISED);
    }

    /**
     * @param  list<string>  $names
     * @param  list<array{source: list<string>, target: list<string>}>  $columns
     */
    public static function ranking(array $names, array $columns): KeyRanking
    {
        return new KeyRanking(
            $names,
            array_map(
                static fn(array $cells): bool => KeyRanking::quantitiesIn(
                    ...array_slice(
                        array_values(array_filter($cells['source'], static fn(string $cell): bool => $cell !== '')),
                        0,
                        self::EXAMPLES,
                    ),
                ),
                $columns,
            ),
        );
    }
}
