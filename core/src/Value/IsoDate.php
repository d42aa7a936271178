<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * How dates are read where no form is declared: only what cannot be misread. Year, month and day with hyphens between them, and after T or
 * a space the time, its fraction and its offset (ISO 8601-1:2019, sections 5.2.2.1 and 5.4.2; RFC 3339, section 5.6).
 *
 * Which day 03/04/2024 is, nobody can tell from the value: it takes a declared form.
 */
final readonly class IsoDate
{
    private const WRITTEN = '/^(?<year>\d{4})-(?<month>\d{2})-(?<day>\d{2})(?:[T '.
        '](?<hour>\d{2}):(?<minute>\d{2})(?::(?<second>\d{2})(?:[.,](?<fraction>\d{1,12}))?)?(?<offset>Z|[+\-]\d{2}(?::?\d{2})?)?)?$/D';

    public static function read(string $text): ?Moment
    {
        // Most texts are no dates, and the fifth byte shows it.
        if (($text[4] ?? '') !== '-' || preg_match(self::WRITTEN, $text, $found) !== 1) {
            return null;
        }
        $hour = $found['hour'] ?? '';
        $offset = $found['offset'] ?? '';

        return Moment::of(
            (int) $found['year'],
            (int) $found['month'],
            (int) $found['day'],
            $hour === '' ? null : (int) $hour,
            (int) ($found['minute'] ?? 0),
            (int) ($found['second'] ?? 0),
            $found['fraction'] ?? '',
            $offset === '' ? null : DateForm::offset($offset),
        );
    }
}
