<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Steps;

use NineTally\Core\Preparation\StepFigures;

/** What steps say, and count, alike. */
final readonly class Words
{
    private const NAMED = 3;

    /** @param list<string> $names */
    public static function listed(array $names): string
    {
        $shown = array_slice($names, 0, count($names) === self::NAMED + 1 ? self::NAMED + 1 : self::NAMED);
        $more = count($names) - count($shown);
        if ($more > 0) {
            return implode(', ', $shown)." and {$more} more";
        }
        $last = array_pop($shown);

        return $shown === [] ? (string) $last : implode(', ', $shown)." and {$last}";
    }

    /**
     * @param  iterable<int, list<string>>  $rows
     * @return \Generator<int, list<string>>
     */
    public static function counted(iterable $rows, StepFigures $figures): \Generator
    {
        foreach ($rows as $packedPlace => $cells) {
            $figures->in++;
            yield $packedPlace => $cells;
        }
    }
}
