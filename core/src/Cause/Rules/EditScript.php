<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

/** The fewest edits that lead from one text to another, as long as they are very few. */
final readonly class EditScript
{
    /**
     * Depth first: equal characters are passed, and only where two differ an edit is tried. With at most two edits that is less work than
     * any table.
     *
     * @param  list<string>  $source  characters
     * @param  list<string>  $target
     * @return list<array{int, int, int, int}>|null each edit as place and number of characters in the source, and in the target; null when
     *     more than $most are needed
     */
    public static function between(array $source, array $target, int $most): ?array
    {
        for ($edits = 0; $edits <= $most; $edits++) {
            $found = self::from($source, 0, $target, 0, $edits);
            if ($found !== null) {
                return $found;
            }
        }

        return null;
    }

    /**
     * @param  list<string>  $source
     * @param  list<string>  $target
     * @return list<array{int, int, int, int}>|null
     */
    private static function from(array $source, int $i, array $target, int $j, int $left): ?array
    {
        while (isset($source[$i], $target[$j]) && $source[$i] === $target[$j]) {
            $i++;
            $j++;
        }
        $was = $source[$i] ?? null;
        $is = $target[$j] ?? null;
        if ($was === null && $is === null) {
            return [];
        }
        if ($left === 0 || abs(count($source) - $i - count($target) + $j) > $left) {
            return null;
        }
        $tries = [];
        if (isset($source[$i + 1], $target[$j + 1]) && $was === $target[$j + 1] && $is === $source[$i + 1]) {
            $tries[] = [$i, 2, $j, 2];
        }
        if ($was !== null && $is !== null) {
            $tries[] = [$i, 1, $j, 1];
        }
        if ($was !== null) {
            $tries[] = [$i, 1, $j, 0];
        }
        if ($is !== null) {
            $tries[] = [$i, 0, $j, 1];
        }
        foreach ($tries as $edit) {
            $rest = self::from($source, $i + $edit[1], $target, $j + $edit[3], $left - 1);
            if ($rest !== null) {
                return [$edit, ...$rest];
            }
        }

        return null;
    }
}
