<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** A day, or a time of a day, perhaps fixed to an instant by its offset from UTC. */
final readonly class Moment
{
    public const SECONDS_OF_DAY = 86_400;

    /**
     * @param  int  $days  since 1970-01-01 in the Gregorian calendar, which is carried back before its beginning (ISO 8601)
     * @param  int|null  $seconds  of the day; null when no time is written
     * @param  string  $fraction  digits of a second, without trailing zeros
     * @param  int|null  $offset  seconds east of UTC
     * @param  int|null  $otherOffset  where the clock of its zone shows this time twice: the offset of the second time
     */
    private function __construct(
        public int $days,
        public ?int $seconds,
        public string $fraction,
        public ?int $offset,
        public ?int $otherOffset = null,
    ) {}

    /** @return self|null null when there is no such day or time: 29 February of a common year, 25:00, 24:01 */
    public static function of(
        int $year,
        int $month,
        int $day,
        ?int $hour = null,
        int $minute = 0,
        int $second = 0,
        string $fraction = '',
        ?int $offset = null,
    ): ?self {
        if ($year < 1 || ! checkdate($month, $day, $year)) {
            return null;
        }
        // A leap second is written as 60; it has no place of its own in a day of 86,400 seconds and is read as the second after.
        $isTime =
            $hour === null ||
            ($hour < 24 && $minute < 60 && $second <= 60) ||
            ($hour === 24 && $minute === 0 && $second === 0 && trim($fraction, '0') === '');

        if (! $isTime) {
            return null;
        }
        // 24:00 is the end of its day and so the beginning of the next (ISO 8601-1:2019, section 4.3.9).
        $days = self::daysTo($year, $month, $day) + ($hour === 24 ? 1 : 0);

        return new self($days, $hour === null ? null : $hour % 24 * 3600 + $minute * 60 + $second, rtrim($fraction, '0'), $offset);
    }

    /** Days since 1970-01-01 by whole numbers alone (Fliegel and Van Flandern 1968). */
    private static function daysTo(int $year, int $month, int $day): int
    {
        $a = intdiv($month - 14, 12);

        return intdiv(1461 * ($year + 4800 + $a), 4) +
            intdiv(367 * ($month - 2 - 12 * $a), 12) -
            intdiv(3 * intdiv($year + 4900 + $a, 100), 4) +
            $day -
            32_075 -
            2_440_588;
    }

    /** @return array{int, int, int} year, month, day */
    public function date(): array
    {
        [$year, $month, $day] = explode('-', gmdate('Y-n-j', $this->days * self::SECONDS_OF_DAY));

        return [(int) $year, (int) $month, (int) $day];
    }

    /** Whether it says a day and nothing more: no time, or midnight. */
    public function isDay(): bool
    {
        return ($this->seconds ?? 0) === 0 && $this->fraction === '' && $this->offset === null;
    }

    /** Seconds since 1970-01-01: of UTC where the offset is known, else of the clock on the wall. */
    public function secondsSinceEpoch(): int
    {
        return $this->days * self::SECONDS_OF_DAY + ($this->seconds ?? 0) - ($this->offset ?? 0);
    }

    /** Earlier, the same or later. Digits of a second are compared as digits: .25 is before .9. */
    public function compareTo(self $other): int
    {
        return [$this->secondsSinceEpoch(), strcmp($this->fraction, $other->fraction)] <=> [$other->secondsSinceEpoch(), 0];
    }

    public function isInstant(): bool
    {
        return $this->offset !== null;
    }

    /**
     * Fixes a time on the wall to an instant. Where clocks go back, a time is two instants, and both are kept.
     *
     * @return self|null null where clocks go forward over the time: it never was
     */
    public function inZone(\DateTimeZone $zone): ?self
    {
        if ($this->offset !== null || $this->seconds === null) {
            return $this;
        }
        $clock = $this->secondsSinceEpoch();
        $offsetAt = static fn(int $instant): int => $zone->getOffset(new \DateTimeImmutable("@{$instant}"));
        // No zone changes its clocks twice within two days, and none is further from UTC than one.
        [$before, $after] = [$offsetAt($clock - self::SECONDS_OF_DAY), $offsetAt($clock + self::SECONDS_OF_DAY)];
        $offsets = array_values(
            array_filter(array_unique([$before, $after]), static fn(int $offset): bool => $offsetAt($clock - $offset) === $offset),
        );

        return $offsets === [] ? null : new self($this->days, $this->seconds, $this->fraction, $offsets[0], $offsets[1] ?? null);
    }

    /** Whether both are one moment; a time that the clock shows twice is either of two. */
    public function isEqualTo(self $other): bool
    {
        return array_intersect($this->spellings(), $other->spellings()) !== [];
    }

    /** @return non-empty-list<string> */
    private function spellings(): array
    {
        return $this->otherOffset === null
            ? [$this->canonical()]
            : [$this->canonical(), (new self($this->days, $this->seconds, $this->fraction, $this->otherOffset))->canonical()];
    }

    /** One spelling for each moment; a time on the wall never equals an instant. */
    public function canonical(): string
    {
        return match (true) {
            $this->isDay() => 'day '.$this->days,
            $this->isInstant() => 'instant '.$this->secondsSinceEpoch().'.'.$this->fraction,
            default => 'clock '.$this->secondsSinceEpoch().'.'.$this->fraction,
        };
    }
}
