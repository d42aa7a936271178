<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

/** The fewest edits that lead from one text to another, as long as they are very few. */
final readonly class EditScript
{
    /**
     * Depth first: equal characters are passed, and only where two differ an edit is tried. With at most two edits that is less work than any table.
     *
     * @param  list<string>  $source  characters
     * @param  list<string>  $target
     * @return list<array{string, string}>|null each edit as what was and what became of it; null when more than $most are needed
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
     * @return list<array{string, string}>|null
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
            $tries[] = [[$was.$is, $is.$was], 2, 2];
        }
        if ($was !== null && $is !== null) {
            $tries[] = [[$was, $is], 1, 1];
        }
        if ($was !== null) {
            $tries[] = [[$was, ''], 1, 0];
        }
        if ($is !== null) {
            $tries[] = [['', $is], 0, 1];
        }
        foreach ($tries as [$edit, $ofSource, $ofTarget]) {
            $rest = self::from($source, $i + $ofSource, $target, $j + $ofTarget, $left - 1);
            if ($rest !== null) {
                return [$edit, ...$rest];
            }
        }

        return null;
    }
}
