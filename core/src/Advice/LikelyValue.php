<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\Decimal;

/**
 * What a value is likely to be, whatever form it is written in: good enough to see that two columns share their values, and for nothing
 * else. Which day 03/04/2024 is does not matter here: day and month are taken in either order.
 */
final readonly class LikelyValue
{
    private const MONTHS = [
        'jan' => 1,
        'feb' => 2,
        'mar' => 3,
        'apr' => 4,
        'may' => 5,
        'jun' => 6,
        'jul' => 7,
        'aug' => 8,
        'sep' => 9,
        'oct' => 10,
        'nov' => 11,
        'dec' => 12,
    ];

    private const DATE = '/^(?:(?<y1>\d{4})([\-\/.])(?<a1>\d{1,2})\2(?<b1>\d{1,2})|'.
        '(?<a2>\d{1,2})([\-\/.])(?<b2>\d{1,2})\6(?<y2>\d{4})|'.
        '(?<a3>\d{1,2})(?:st|nd|rd|th)?[ \-](?<n3>[A-Za-z]{3,9})\.?,?[ \-](?<y3>\d{4}))'.
        '(?:[T ](?<time>\d{1,2}:\d{2}(?::\d{2})?).*)?$/D';

    private const NUMBER = '/^[+\-]?\d[\d.,\' \x{A0}\x{202F}]*$/uD';

    private function __construct(public string $canonical, public bool $isNumber, public bool $isDate) {}

    public static function of(string $value): self
    {
        return self::date($value) ??
            (self::number($value) ?? new self(mb_strtolower(preg_replace('/\s+/u', ' ', trim($value)) ?? $value), false, false));
    }

    private static function date(string $value): ?self
    {
        $length = strlen($value);
        if ($length < 8 || $length > 40 || preg_match(self::DATE, $value, $found, PREG_UNMATCHED_AS_NULL) !== 1) {
            return null;
        }
        $month = $found['n3'] === null ? null : self::MONTHS[strtolower(substr($found['n3'], 0, 3))] ?? 0;
        $parts = [(int) ($found['a1'] ?? $found['a2'] ?? $found['a3']), $month ?? (int) ($found['b1'] ?? $found['b2'])];
        sort($parts);
        $isDate = $parts[0] >= 1 && $parts[0] <= 12 && $parts[1] <= 31;

        return $isDate
            ? new self(
                sprintf(
                    'date %s %d %d %s',
                    $found['y1'] ?? ($found['y2'] ?? $found['y3']),
                    $parts[0],
                    $parts[1],
                    rtrim((string) ($found['time'] ?? ''), ':0'),
                ),
                false,
                true,
            )
            : null;
    }

    private static function number(string $value): ?self
    {
        $value = trim($value);
        if (preg_match(self::NUMBER, $value) !== 1) {
            return null;
        }
        // The last mark is the decimal one unless exactly three digits follow it, or it stands more than once.
        $hasDecimals =
            preg_match('/[.,](\d+)$/D', $value, $tail) === 1 && strlen($tail[1]) !== 3 && substr_count($value, $tail[0][0]) === 1;
        $part = $hasDecimals ? $tail[1] : '';
        $whole = preg_replace('/\D+/', '', $hasDecimals ? substr($value, 0, -strlen($part) - 1) : $value) ?? '';

        return new self(Decimal::of($value[0] === '-', $whole, $part, 0)->canonical(), true, false);
    }
}
