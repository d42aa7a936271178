<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * How dates are read where no form is declared: year first (ISO 8601, with or without a time), day first with a year of four
 * digits, a month's English name. Month first only where the day could be no month. Two-digit years are not guessed.
 */
final readonly class UndeclaredDates
{
    private const TIME = '(?:[T ](?<hour>\d{1,2}):(?<minute>\d{2})(?::(?<second>\d{2})(?:[.,](?<fraction>\d{1,12}))?)?(?<offset>Z|[+\-]\d{2}:?\d{2})?)?';

    private const YEAR_FIRST = '/^(?<year>\d{4})([\-\/.])(?<month>\d{1,2})\2(?<day>\d{1,2})'.self::TIME.'$/D';

    private const YEAR_LAST = '/^(?<first>\d{1,2})([\-\/.])(?<second_>\d{1,2})\2(?<year>\d{4})'.self::TIME.'$/D';

    private const NAMED = '/^(?<day>\d{1,2})(?:st|nd|rd|th)?[ \-](?<name>[A-Za-z]{3,9})\.?,?[ \-](?<year>\d{4})'.self::TIME.'$/D';

    private const NAMED_FIRST = '/^(?<name>[A-Za-z]{3,9})\.? (?<day>\d{1,2})(?:st|nd|rd|th)?,? (?<year>\d{4})'.self::TIME.'$/D';

    private const COMPACT = '/^(?<year>\d{4})(?<month>\d{2})(?<day>\d{2})'.self::TIME.'$/D';

    public static function read(string $text): ?Moment
    {
        // Most texts are no dates: they end with a letter, or have no year.
        $length = strlen($text);
        if ($length < 8 || $length > 40 || ! ctype_digit($text[$length - 1]) && $text[$length - 1] !== 'Z' || preg_match('/\d{4}/', $text) !== 1) {
            return null;
        }

        return match (true) {
            preg_match(self::YEAR_FIRST, $text, $found) === 1 => self::moment($found, (int) $found['month'], (int) $found['day']),
            preg_match(self::YEAR_LAST, $text, $found) === 1 => self::moment($found, (int) $found['second_'], (int) $found['first']) ?? self::moment($found, (int) $found['first'], (int) $found['second_']),
            preg_match(self::NAMED, $text, $found) === 1, preg_match(self::NAMED_FIRST, $text, $found) === 1 => self::moment($found, DateForm::monthNamed($found['name']) ?? 0, (int) $found['day']),
            default => null,
        };
    }

    /** Eight digits are a date only beside one that is written out: alone they could be any number. */
    public static function readCompact(string $text): ?Moment
    {
        return preg_match(self::COMPACT, $text, $found) === 1 ? self::moment($found, (int) $found['month'], (int) $found['day']) : null;
    }

    /** @param array<array-key, string> $found */
    private static function moment(array $found, int $month, int $day): ?Moment
    {
        $hour = $found['hour'] ?? '';
        $offset = $found['offset'] ?? '';

        return Moment::of((int) ($found['year'] ?? 0), $month, $day, $hour === '' ? null : (int) $hour, (int) ($found['minute'] ?? 0), (int) ($found['second'] ?? 0), $found['fraction'] ?? '', $offset === '' ? null : DateForm::offset($offset));
    }
}
