<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/**
 * JSON in its canonical form (RFC 8785), so that equal documents have equal bytes and one digest.
 *
 * Plans hold strings, integers, booleans, lists and objects. Floats are refused: their canonical form follows ECMAScript's,
 * and a plan writes decimals as strings.
 */
final readonly class CanonicalJson
{
    public static function of(mixed $value): string
    {
        return match (true) {
            is_array($value) && array_is_list($value) => '['.implode(',', array_map(self::of(...), $value)).']',
            is_array($value) => self::object($value),
            is_string($value), is_int($value), is_bool($value), $value === null => json_encode(
                $value,
                JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_LINE_TERMINATORS | JSON_THROW_ON_ERROR,
            ),
            default => throw new \InvalidArgumentException(sprintf('A value of type %s has no place in a plan.', get_debug_type($value))),
        };
    }

    /** @param array<array-key, mixed> $members */
    private static function object(array $members): string
    {
        // RFC 8785, section 3.2.3: names are ordered by their UTF-16 code units.
        uksort(
            $members,
            static fn(int|string $a, int|string $b): int => strcmp(
                mb_convert_encoding((string) $a, 'UTF-16BE', 'UTF-8'),
                mb_convert_encoding((string) $b, 'UTF-16BE', 'UTF-8'),
            ),
        );

        return '{'.
            implode(
                ',',
                array_map(
                    static fn(int|string $name, mixed $value): string => self::of((string) $name).':'.self::of($value),
                    array_keys($members),
                    $members,
                ),
            ).
            '}';
    }
}
