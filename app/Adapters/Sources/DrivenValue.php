<?php

declare(strict_types=1);

namespace App\Adapters\Sources;

/** A value as a driver of PDO gives it, as text. */
final readonly class DrivenValue
{
    /** @return string|null what is no text as \x and hexadecimal digits */
    public static function text(mixed $value): ?string
    {
        if (is_resource($value)) {
            $value = (string) stream_get_contents($value);
        }

        return match (true) {
            $value === null => null,
            is_scalar($value) => mb_check_encoding((string) $value, 'UTF-8') ? (string) $value : '\\x'.bin2hex((string) $value),
            default => '',
        };
    }
}
