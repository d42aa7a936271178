<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Preparation\StepCatalogue;

/**
 * Parts of values that rows can share, where whole ones are too fine: the day of a time, the first characters. Each is a column of its own
 * for a look, made by a step.
 *
 * @phpstan-import-type StepDocument from StepCatalogue
 *
 * @phpstan-type Part array{column: string, part: 'day'|'month'|'year'|'start', length?: int}
 */
final readonly class LookedParts
{
    public const PARTS = ['day', 'month', 'year', 'start'];

    /** What the part is called, as a column. */
    public static function name(string $column, string $part, int $length): string
    {
        return $part === 'start' ? "{$column} (first {$length})" : "{$column} ({$part})";
    }

    /**
     * @param  string  $column  of the side
     * @return StepDocument
     */
    public static function step(string $column, string $part, int $length, int $nth): array
    {
        $cell = 'column("'.addcslashes($column, '"\\').'")';
        $two = static fn(string $number): string => "right(\"0\" ~ {$number}, 2)";
        $month = "year({$cell}) ~ \"-\" ~ {$two("month({$cell})")}";

        return [
            'id' => "looked-{$nth}",
            'kind' => 'compute-column',
            'into' => self::name($column, $part, $length),
            'formula' => match ($part) {
                'start' => "left({$cell}, {$length})",
                'year' => "year({$cell}) ~ \"\"",
                'month' => $month,
                default => "{$month} ~ \"-\" ~ {$two("day({$cell})")}",
            },
        ];
    }
}
