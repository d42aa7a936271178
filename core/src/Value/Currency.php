<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** Signs of currencies, and the codes of ISO 4217 that they are the same as. */
final readonly class Currency
{
    private const CODES = [
        '€' => 'EUR', '£' => 'GBP', '$' => 'USD', '¥' => 'JPY', '₹' => 'INR', 'zł' => 'PLN', 'Kč' => 'CZK', 'Ft' => 'HUF', 'Fr.' => 'CHF',
        'SFr.' => 'CHF', '₽' => 'RUB', '₺' => 'TRY', '₩' => 'KRW', '₪' => 'ILS', 'US$' => 'USD', 'A$' => 'AUD', 'C$' => 'CAD',
    ];

    /** Whether amounts under both signs are amounts of one currency. */
    public static function areOne(string $one, string $other): bool
    {
        return (self::CODES[$one] ?? $one) === (self::CODES[$other] ?? $other);
    }

    /** Whether it can be nothing else than a sign or code of a currency: three capitals alone may be a code of any other kind. */
    public static function isCertain(string $text): bool
    {
        return isset(self::CODES[$text]) || in_array($text, self::CODES, true) || preg_match('/^\p{Sc}$/Du', $text) === 1;
    }

    /** Whether it is a sign or code of a currency as they stand beside amounts. */
    public static function isSign(string $text): bool
    {
        return isset(self::CODES[$text]) || preg_match('/^(?:[A-Z]{3}|\p{Sc}|kr\.?)$/Du', $text) === 1;
    }
}
