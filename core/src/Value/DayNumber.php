<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * Days as workbooks number them, with the time of the day as a fraction: in the 1900 system 1 is 1 January 1900 and 60 a 29 February that
 * never was; in the 1904 system 0 is 1 January 1904 (ECMA-376-1:2016, section 18.17.4.1).
 */
enum DayNumber: string
{
    case Since1900 = 'day-number-1900';
    case Since1904 = 'day-number-1904';

    /** Beyond 9999-12-31 nothing is a day. */
    private const LATEST = 2_958_465;

    private const DAY_THAT_NEVER_WAS = 60;

    public function read(string $text): ?Moment
    {
        if (preg_match('/^(\d{1,7})(?:\.(\d{1,15}))?$/D', $text, $found) !== 1) {
            return null;
        }
        $number = (int) $found[1];
        $isDay = match ($this) {
            self::Since1900 => $number >= 1 && $number !== self::DAY_THAT_NEVER_WAS && $number <= self::LATEST,
            self::Since1904 => $number <= self::LATEST,
        };
        if (! $isDay) {
            return null;
        }
        // A fraction of a day has been rounded: what is meant is the nearest second.
        $seconds = (int) round((float) ('0.'.($found[2] ?? '0')) * Moment::SECONDS_OF_DAY);
        $days = $this->dayZero() + $number + ($this === self::Since1900 && $number < self::DAY_THAT_NEVER_WAS ? 1 : 0);
        [$year, $month, $day] = array_map(
            intval(...),
            explode('-', gmdate('Y-n-j', $days * Moment::SECONDS_OF_DAY + ($seconds === Moment::SECONDS_OF_DAY ? $seconds : 0))),
        );
        $seconds %= Moment::SECONDS_OF_DAY;

        return Moment::of($year, $month, $day, $seconds === 0 ? null : intdiv($seconds, 3600), intdiv($seconds, 60) % 60, $seconds % 60);
    }

    public function written(Moment $moment): string
    {
        $number = $moment->days - $this->dayZero();
        $number -= $this === self::Since1900 && $number <= self::DAY_THAT_NEVER_WAS ? 1 : 0;
        $fraction = rtrim(substr(sprintf('%.10f', ($moment->seconds ?? 0) / Moment::SECONDS_OF_DAY), 2), '0');

        return $number.($fraction === '' ? '' : ".{$fraction}");
    }

    /** Days since 1970-01-01. */
    private function dayZero(): int
    {
        return match ($this) {
            self::Since1900 => -25_569,
            self::Since1904 => -24_107,
        };
    }
}
