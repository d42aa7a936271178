<?php

declare(strict_types=1);

namespace NineTally\Core\Advice;

use NineTally\Core\Value\Currency;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\MonthNames;

/**
 * What a value is likely to be, whatever form it is written in: good enough to see that two columns share their values, and for nothing
 * else. Which day 03/04/2024 is does not matter here: day and month are taken in either order.
 */
final readonly class LikelyValue
{
    private const NAME = '[\p{L}\p{M}]{3,12}';

    private const DATE = '/^(?:(?<y1>\d{4})([\-\/.])(?<a1>\d{1,2})\2(?<b1>\d{1,2})|'.
        '(?<a2>\d{1,2})([\-\/.])(?<b2>\d{1,2})\6(?<y2>\d{4}|\d{2})|'.
        '(?<a3>\d{1,2})(?:st|nd|rd|th|\.)?(?: de |[ \-\/])?(?<n3>'.self::NAME.')\.?,?(?: de |[ \-\/])(?<y3>\d{4}|\d{2})|'.
        '(?<n4>'.self::NAME.')\.?[ \-](?<a4>\d{1,2}),?[ \-](?<y4>\d{4}|\d{2}))'.
        '(?:[T ](?<time>\d{1,2}:\d{2}(?::\d{2})?).*)?$/Du';

    private const NUMBER = '/^[+\-]?\d[\d.,\' \x{A0}\x{202F}]*$/uD';

    /** An amount with what may stand around it: a currency, a sign of percent, a minus behind it, parentheses. */
    private const AMOUNT = '/^(?<open>\()?(?<sign>[+\-])?(?<before>[^\d\s+\-()]{1,4})?[ \x{A0}\x{202F}]?(?<inner>[+\-])?'.
        '(?<digits>\d[\d.,\' \x{A0}\x{202F}]*?)[ \x{A0}\x{202F}]?(?<behind>[^\d\s+\-()]{1,4})?(?<last>-)?(?<close>\))?$/uD';

    private function __construct(public string $canonical, public bool $isNumber, public bool $isDate) {}

    public static function of(string $value): self
    {
        return self::date($value) ??
            (self::number($value) ??
                (self::amount($value) ?? new self(mb_strtolower(preg_replace('/\s+/u', ' ', trim($value)) ?? $value), false, false)));
    }

    /** One writing for all that could be one value, whatever form keeps them apart: for drawing rows of both sides alike. */
    public static function bare(string $value): string
    {
        $visible = trim(preg_replace('/[\p{Cc}\p{Cf}\s]+/u', ' ', $value) ?? $value);
        $likely = self::of($visible);
        if ($likely->isNumber || $likely->isDate) {
            return $likely->canonical;
        }
        $month = mb_strlen($visible) > 12 ? null : MonthNames::month(rtrim($visible, '.'));
        if ($month !== null) {
            return "month {$month}";
        }
        $decomposed = \Normalizer::normalize($likely->canonical, \Normalizer::FORM_KD);
        $letters = preg_replace(['/\p{Mn}+/u', '/[^\p{L}\p{N}\s]/u'], ['', '-'], is_string($decomposed) ? $decomposed : $likely->canonical);

        return ltrim($letters ?? $likely->canonical, '0');
    }

    private static function date(string $value): ?self
    {
        $length = strlen($value);
        if ($length < 6 || $length > 40 || preg_match(self::DATE, $value, $found, PREG_UNMATCHED_AS_NULL) !== 1) {
            return null;
        }
        $name = $found['n3'] ?? $found['n4'];
        $month = $name === null ? (int) ($found['b1'] ?? $found['b2']) : MonthNames::month($name) ?? 0;
        $parts = [(int) ($found['a1'] ?? $found['a2'] ?? $found['a3'] ?? $found['a4']), $month];
        sort($parts);
        $isDate = $parts[0] >= 1 && $parts[0] <= 12 && $parts[1] <= 31;

        return $isDate
            ? new self(
                sprintf(
                    'date %s %d %d %s',
                    // Of two digits nobody knows the century.
                    substr((string) ($found['y1'] ?? $found['y2'] ?? $found['y3'] ?? $found['y4']), -2),
                    $parts[0],
                    $parts[1],
                    rtrim((string) ($found['time'] ?? ''), ':0'),
                ),
                false,
                true,
            )
            : null;
    }

    private static function amount(string $value): ?self
    {
        $value = trim($value);
        if (strlen($value) > 60 || strpbrk($value, '0123456789') === false) {
            return null;
        }
        if (preg_match(self::AMOUNT, $value, $found, PREG_UNMATCHED_AS_NULL) !== 1) {
            return null;
        }
        $marks = array_filter([$found['before'], $found['behind']], static fn(?string $mark): bool => $mark !== null);
        foreach ($marks as $mark) {
            if ($mark !== '%' && ! Currency::isCertain($mark)) {
                return null;
            }
        }
        $isNegative = $found['open'] !== null || $found['sign'] === '-' || $found['inner'] === '-' || $found['last'] === '-';

        return ($found['open'] === null) === ($found['close'] === null) && count($marks) <= 1
            ? self::number(($isNegative ? '-' : '').$found['digits'])
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
