<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** Tells a value from what only looks like none. Blank is the empty cell alone; a space is not blank, but it is no value either. */
final readonly class Blankness
{
    /** Whether nothing can be seen: the empty text, spaces, tabs, zero-width and control characters. A line end can be seen. */
    public static function showsNothing(string $text): bool
    {
        return preg_match('/^(?:(?![\n\r\x{85}])[\p{Zs}\p{Cc}\p{Cf}])*$/uD', $text) === 1;
    }
}
