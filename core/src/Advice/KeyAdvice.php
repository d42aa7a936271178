<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

/**
 * Advises keys from samples of both sides, the most likely one first.
 *
 * @phpstan-type Ranked array{places: non-empty-list<int>, share: float}
 */
final readonly class KeyAdvice
{
    private const EXAMPLES = 50;

    /** Of those that are nearly unique, and of those in which a few rows repeat. */
    private const ADVISED = 8;

    /**
     * @param  list<string>  $names  of the source columns, pair by pair
     * @param  list<array{source: list<string>, target: list<string>}>  $columns  the cells of all rows of the samples, pair by pair
     * @param  (callable(int, int): void)|null  $onProgress
     * @return list<AdvisedKey>
     */
    public function keys(array $names, array $columns, ?callable $onProgress = null): array
    {
        // A shorter key in which a few rows repeat may be what is meant, as well as a longer one in which none does.
        $ranking = self::ranking($names, $columns);
        $keys = [];
        foreach ([KeySearch::NEARLY, KeySearch::AT_ALL] as $mayRepeat) {
            $found = (new KeySearch($mayRepeat))->keys($columns, $onProgress);
            usort(
                $found,
                static fn(AdvisedKey $one, AdvisedKey $other): int => $ranking->score($other->places) <=> $ranking->score($one->places),
            );
            foreach (array_slice($found, 0, self::ADVISED) as $key) {
                $keys[implode(',', $key->places)] ??= $key;
            }
        }

        return array_values($keys);
    }

    /**
     * The order in which keys are offered once it is known how many rows they join.
     *
     * @param  list<Ranked>  $keys  with the share of the source's rows that meet one to one
     * @return list<int> places among the keys
     */
    public static function ranked(KeyRanking $ranking, array $keys): array
    {
        $worth = array_map(static fn(array $key): array => $ranking->worth($key['places'], $key['share']), $keys);
        asort($worth);

        return array_keys($worth);
    }

    /**
     * How many rows of whole sides a key joins one to one, whatever form its values are written in.
     *
     * @param  list<array{source: list<string>, target: list<string>}>  $columns
     * @param  non-empty-list<int>  $places
     * @return float from 0 to 1
     */
    public static function share(array $columns, array $places): float
    {
        $times = [];
        foreach (['source', 'target'] as $side) {
            $keys = [];
            foreach ($columns[$places[0]][$side] as $row => $ignored) {
                $keys[] = implode(
                    "\0",
                    array_map(static fn(int $place): string => LikelyValue::bare($columns[$place][$side][$row]), $places),
                );
            }
            $times[$side] = array_count_values($keys);
        }
        $met = array_filter(
            $times['source'],
            static fn(int $count, int|string $key): bool => $count === 1 && ($times['target'][$key] ?? 0) === 1,
            ARRAY_FILTER_USE_BOTH,
        );

        return count($met) / max(1, count($columns[$places[0]]['source']));
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
