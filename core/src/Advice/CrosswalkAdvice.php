<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\MonthNames;

/**
 * Which value of one side means which of the other, where the values tell by themselves: months by name, by number or cut short, and
 * words that begin with the other.
 */
final readonly class CrosswalkAdvice
{
    private const MOST = 200;

    private const COVERED_PERCENT = 80;

    /**
     * @param  list<string>  $source  different values
     * @param  list<string>  $target
     * @return array<string, string> of values that differ, one to one; none where too few could be told
     */
    public static function entries(array $source, array $target): array
    {
        $left = array_values(array_diff($source, $target));
        $leftThere = array_values(array_diff($target, $source));
        if ($left === [] || $leftThere === [] || max(count($left), count($leftThere)) > self::MOST) {
            return [];
        }
        foreach ([self::month(...), null] as $meaning) {
            $entries = [];
            foreach ($left as $value) {
                $others = array_values(array_filter(
                    $leftThere,
                    static fn(string $other): bool => $meaning === null
                        ? self::begins($value, $other)
                        : $meaning($value) !== null && $meaning($value) === $meaning($other),
                ));
                if (count($others) === 1) {
                    $entries[$value] = $others[0];
                }
            }
            $isOneToOne = count(array_unique($entries)) === count($entries);
            if ($isOneToOne && count($entries) * 100 >= self::COVERED_PERCENT * count($left)) {
                return $entries;
            }
        }

        return [];
    }

    private static function month(string $value): ?int
    {
        $number = preg_match('/^0?[1-9]$|^1[0-2]$/D', $value) === 1 ? (int) $value : null;

        return $number ?? MonthNames::month(rtrim($value, '.'));
    }

    private static function begins(string $one, string $other): bool
    {
        [$short, $long] = [mb_strtolower($one), mb_strtolower($other)];
        [$short, $long] = strlen($short) <= strlen($long) ? [$short, $long] : [$long, $short];

        return $short !== '' && str_starts_with($long, rtrim($short, '.'));
    }
}
