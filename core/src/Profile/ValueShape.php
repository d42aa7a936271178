<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

/**
 * The shape of a value: every letter as a or A and every digit as 9, runs of up to eight as long as they are: "KB-014" is "AA-999", and
 * 007 is not the shape of 7.
 */
final class ValueShape
{
    private const LONGEST_KEPT = 200;

    private const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz012345678';

    private const SHAPES = 'AAAAAAAAAAAAAAAAAAAAAAAAAAaaaaaaaaaaaaaaaaaaaaaaaaaa999999999';

    public static function of(string $value): string
    {
        $shape = self::shortened($value);
        $shape = ctype_print($shape)
            ? strtr($shape, self::LETTERS, self::SHAPES)
            : preg_replace(['/\p{Lu}/u', '/[\p{Ll}\p{Lo}]/u', '/\d/'], ['A', 'a', '9'], $shape) ?? '';

        return strlen($shape) <= 8 ? $shape : preg_replace('/([Aa9])\1{8,}/', '$1$1$1$1$1$1$1$1…', $shape) ?? '';
    }

    /** As much of a value as is kept of it. */
    public static function shortened(string $value): string
    {
        return strlen($value) > self::LONGEST_KEPT ? mb_strcut($value, 0, self::LONGEST_KEPT) : $value;
    }
}
