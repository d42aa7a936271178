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
        return json_encode(
            self::sorted($value),
            JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_LINE_TERMINATORS | JSON_THROW_ON_ERROR,
        );
    }

    /** The same value with the members of its objects in their order. */
    private static function sorted(mixed $value): mixed
    {
        if (is_string($value) || is_int($value) || is_bool($value) || $value === null) {
            return $value;
        }
        if (! is_array($value)) {
            throw new \InvalidArgumentException(sprintf('A value of type %s has no place in a plan.', get_debug_type($value)));
        }
        foreach ($value as $member) {
            if (! is_string($member)) {
                $value = array_map(self::sorted(...), $value);
                break;
            }
        }
        if (! array_is_list($value)) {
            self::sort($value);
        }

        return $value;
    }

    /** @param array<array-key, mixed> $members */
    private static function sort(array &$members): void
    {
        // RFC 8785, section 3.2.3: names are ordered by their UTF-16 code units, which for letters of ASCII is the order of their bytes.
        if (preg_match('/[^\x00-\x7F]/', implode('', array_keys($members))) === 0) {
            ksort($members, SORT_STRING);

            return;
        }
        uksort(
            $members,
            static fn(int|string $a, int|string $b): int => strcmp(
                mb_convert_encoding((string) $a, 'UTF-16BE', 'UTF-8'),
                mb_convert_encoding((string) $b, 'UTF-16BE', 'UTF-8'),
            ),
        );
    }
}
