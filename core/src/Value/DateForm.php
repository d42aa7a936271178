<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * One way to write dates, in the pattern letters of Unicode (UTS #35, part 4, Date Field Symbols): yyyy yy MM M MMM dd d HH H hh h a mm ss
 * SSS XXX; other letters stand between apostrophes. Months may have the names that MonthNames knows. Beside patterns there are the day
 * numbers of workbooks, which have a name instead.
 */
final readonly class DateForm
{
    private const FIELDS = [
        'yyyy' => '(?<year>\d{4})',
        'yy' => '(?<shortYear>\d{2})',
        'MMM' => '(?<name>[\p{L}\p{M}]{3,12})\.?',
        'MM' => '(?<month>\d{2})',
        'M' => '(?<month>\d{1,2})',
        'dd' => '(?<day>\d{2})',
        'd' => '(?<day>\d{1,2})',
        'HH' => '(?<hour>\d{2})',
        'H' => '(?<hour>\d{1,2})',
        'hh' => '(?<hour>\d{2})',
        'h' => '(?<hour>\d{1,2})',
        'a' => '(?<half>[AaPp][Mm])',
        'mm' => '(?<minute>\d{2})',
        'ss' => '(?<second>\d{2})',
        'SSS' => '(?<fraction>\d{1,12})',
        'XXX' => '(?<offset>Z|[+\-]\d{2}:?\d{2})',
    ];

    /** @param int|null $twoDigitYearsFrom the first year that two digits can mean; null where the form has none */
    private function __construct(
        public string $pattern,
        private string $written,
        private ?int $twoDigitYearsFrom,
        private ?DayNumber $dayNumber = null,
    ) {}

    /**
     * @param  int|null  $twoDigitYearsFrom  1950 reads 49 as 2049 and 50 as 1950
     *
     * @throws UnusableDateForm when the pattern names no day, or a two-digit year without saying what it means
     */
    public static function of(string $pattern, ?int $twoDigitYearsFrom = null): self
    {
        $dayNumber = DayNumber::tryFrom($pattern);
        if ($dayNumber !== null) {
            return new self($pattern, '', null, $dayNumber);
        }
        $written = '';
        $seen = [];
        preg_match_all("/'(?:[^']|'')*'|([A-Za-z])\\1*|./us", $pattern, $pieces);
        foreach ($pieces[0] as $piece) {
            if (preg_match('/^[A-Za-z]/', $piece) === 1) {
                $field = self::FIELDS[$piece] ?? throw UnusableDateForm::withLetters($pattern, $piece);
                $seen[$piece] = true;
                $written .= $field;
            } else {
                $written .= preg_quote($piece === "''" ? "'" : str_replace("''", "'", trim($piece, "'")), '/');
            }
        }
        $hasDay =
            (isset($seen['yyyy']) || isset($seen['yy'])) &&
            (isset($seen['MM']) || isset($seen['M']) || isset($seen['MMM'])) &&
            (isset($seen['dd']) || isset($seen['d']));
        if (! $hasDay) {
            throw UnusableDateForm::withoutDay($pattern);
        }
        if (isset($seen['yy']) && $twoDigitYearsFrom === null) {
            throw UnusableDateForm::withoutCentury($pattern);
        }
        if (
            substr_count($written, '(?<month>') > 1 ||
            substr_count($written, '(?<day>') > 1 ||
            substr_count($written, '(?<hour>') > 1 ||
            (isset($seen['MMM']) && str_contains($written, '(?<month>'))
        ) {
            throw UnusableDateForm::withLetters($pattern, $pattern);
        }

        return new self($pattern, "/^{$written}\$/uD", isset($seen['yy']) ? $twoDigitYearsFrom : null);
    }

    public function hasOffset(): bool
    {
        return str_contains($this->written, '(?<offset>');
    }

    public function read(string $text): ?Moment
    {
        if ($this->dayNumber !== null) {
            return $this->dayNumber->read($text);
        }
        if (preg_match($this->written, $text, $found) !== 1) {
            return null;
        }
        $month = isset($found['name']) ? MonthNames::month($found['name']) : (int) ($found['month'] ?? 0);
        $hour = isset($found['hour']) ? self::hour((int) $found['hour'], $found['half'] ?? null) : null;

        return $month === null || $hour === -1 ? null : Moment::of(
            isset($found['shortYear']) ? $this->yearOf((int) $found['shortYear']) : (int) ($found['year'] ?? 0),
            $month,
            (int) ($found['day'] ?? 0),
            $hour,
            (int) ($found['minute'] ?? 0),
            (int) ($found['second'] ?? 0),
            $found['fraction'] ?? '',
            isset($found['offset']) ? self::offset($found['offset']) : null,
        );
    }

    /** @return int seconds east of UTC */
    public static function offset(string $text): int
    {
        if ($text === 'Z') {
            return 0;
        }
        $digits = str_replace(':', '', substr($text, 1));

        return ($text[0] === '-' ? -1 : 1) * ((int) substr($digits, 0, 2) * 3600 + (int) substr($digits, 2) * 60);
    }

    /** @return int -1 when a clock of twelve hours has no such hour */
    private static function hour(int $hour, ?string $half): int
    {
        if ($half === null) {
            return $hour;
        }

        return $hour < 1 || $hour > 12 ? -1 : $hour % 12 + (strtolower($half) === 'pm' ? 12 : 0);
    }

    private function yearOf(int $short): int
    {
        $from = $this->twoDigitYearsFrom ?? 0;
        $year = intdiv($from, 100) * 100 + $short;

        return $year < $from ? $year + 100 : $year;
    }
}
