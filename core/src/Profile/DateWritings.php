<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\DayNumber;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Moment;

/**
 * The ways in which the dates of a column are written. Values of one layout (what stands between the figures, and whether a time follows)
 * are of one writing; day first and month first are two ways to read it, and which of them reads how many values is counted.
 */
final class DateWritings
{
    /** Windows of a hundred years are proposed from this one; the other side may tell a better one. */
    public const TWO_DIGITS_FROM = 1950;

    private const MOST_LAYOUTS = 12;

    private const NAME = '[\p{L}\p{M}]{3,12}\.?';

    private const VALUE =
        '/^(?:(?<one>\d{1,4}|'.
        self::NAME.
        ')(?<gap>[\/.\-]|\.? |, | de |\.)(?<two>\d{1,2}|'.
        self::NAME.
        ')(?<gap2>[\/.\-]|,? | de |\. ?)'.
        '(?<three>\d{4}|\d{1,2})|(?<solid>\d{8}))'.
        '(?:(?<lead>T| |, )(?<hour>\d{1,2}):\d{2}(?<second>:\d{2}(?<fraction>\.\d{1,12})?)?'.
        '(?<half> ?[AaPp][Mm])?(?<offset> ?(?:Z|[+\-]\d{2}:?\d{2}))?)?$/Du';

    /** Days since 1970-01-01 between which nearly all registers are. */
    private const FROM_1900 = -25_568;

    private const TO_2100 = 47_482;

    /** The end of 2099 in workbooks. */
    private const LAST_DAY_NUMBER = 73_051;

    /** @var array<string, DateForm> by pattern */
    private array $forms = [];

    /** @var array<string, non-empty-array<string, WrittenDates>> by layout, then by order of the fields */
    private array $layouts = [];

    /** Eight digits. */
    private ?WrittenDates $solid = null;

    private readonly WrittenDates $dayNumbers;

    private int $unread = 0;

    private int $seen = 0;

    private int $numbersSeen = 0;

    public function __construct()
    {
        $this->dayNumbers = new WrittenDates('');
    }

    /** @param bool $isPlainNumber whether it can be read as a number without any declaration */
    public function see(string $value, bool $isPlainNumber): void
    {
        $this->seen++;
        if ($isPlainNumber) {
            $this->seeNumber($value);

            return;
        }
        if (! $this->isWorthwhile($value) || preg_match(self::VALUE, $value, $found, PREG_UNMATCHED_AS_NULL) !== 1) {
            $this->unread++;

            return;
        }
        $orders = $this->orders($found);
        $layout = $this->layout($found);
        if ($orders === [] || ! isset($this->layouts[$layout]) && count($this->layouts) === self::MOST_LAYOUTS) {
            $this->unread++;

            return;
        }
        $isRead = false;
        foreach ($orders as $order => $pattern) {
            $moment = $this->form($pattern)->read($value);
            if ($moment !== null) {
                ($this->layouts[$layout][$order] ??= new WrittenDates($pattern))->see($value, $moment, $pattern);
                $isRead = true;
            }
        }
        $this->unread += $isRead ? 0 : 1;
    }

    /** @return list<PossibleReading> the fewest unread values first */
    public function readings(): array
    {
        if ($this->seen === 0) {
            return [];
        }
        $readings = [];
        // Eight digits are a date where others of the column are.
        $solid = $this->solid;
        foreach ($this->layouts === [] ? [] : $this->combinations() as [$writings, $unread]) {
            $writings = [...$writings, ...($solid === null ? [] : [$solid])];
            $patterns = array_values(array_unique(array_map(static fn(WrittenDates $writing): string => $writing->pattern(), $writings)));
            $hasShortYears =
                array_filter($patterns, static fn(string $pattern): bool => preg_match('/(?<!y)yy(?!y)/', $pattern) === 1) !== [];
            $readings[] = new PossibleReading(
                array_filter($patterns, static fn(string $pattern): bool => str_contains($pattern, 'mm')) === []
                    ? Kind::Date
                    : Kind::DateTime,
                ['dateForms' => $patterns] + ($hasShortYears ? ['twoDigitYearsFrom' => self::TWO_DIGITS_FROM] : []),
                $unread + $this->unread + $this->numbersSeen - ($solid->count ?? 0),
                WrittenDates::range(...$writings),
            );
        }
        $dayNumbers = $this->dayNumbers->count === 0 ? [] : array_fill_keys(array_column(DayNumber::cases(), 'value'), $this->dayNumbers);
        foreach ([...$this->solid === null ? [] : ['yyyyMMdd' => $this->solid], ...$dayNumbers] as $pattern => $writing) {
            $readings[] = new PossibleReading(
                $writing->hasTimes ? Kind::DateTime : Kind::Date,
                ['dateForms' => [$pattern]],
                $this->seen - $writing->count,
                WrittenDates::range($writing),
                isWeak: true,
            );
        }
        usort($readings, static fn(PossibleReading $one, PossibleReading $other): int => $one->unread <=> $other->unread);

        return $readings;
    }

    /**
     * One way to read each layout, with one and the same order of day and month wherever there is a choice.
     *
     * @return list<array{list<WrittenDates>, int}> with how many values it leaves unread
     */
    private function combinations(): array
    {
        $combinations = [];
        foreach (['day', 'month', 'year', 'name'] as $first) {
            $writings = [];
            $unread = 0;
            $hasChoice = false;
            foreach ($this->layouts as $orders) {
                $hasChoice = $hasChoice || isset($orders[$first]);
                $counts = array_map(static fn(WrittenDates $writing): int => $writing->count, array_values($orders));
                // A layout that no value fits in this order is read in the order that it has.
                $chosen = $orders[$first] ?? $orders[array_key_first($orders)];
                $writings[] = $chosen;
                $unread += max(0, ...$counts) - $chosen->count;
            }
            $name = implode('|', array_map(static fn(WrittenDates $writing): string => $writing->pattern(), $writings));
            if ($hasChoice) {
                usort($writings, static fn(WrittenDates $one, WrittenDates $other): int => $other->count <=> $one->count);
                $combinations[$name] ??= [$writings, $unread];
            }
        }

        return array_values($combinations);
    }

    private function seeNumber(string $value): void
    {
        $this->numbersSeen++;
        if (strlen($value) === 8 && ctype_digit($value)) {
            $moment = $this->form('yyyyMMdd')->read($value);
            $isNow = $moment !== null && $moment->days > self::FROM_1900 && $moment->days < self::TO_2100;
            $isNow && ($this->solid ??= new WrittenDates('yyyyMMdd'))->see($value, $moment, 'yyyyMMdd');

            return;
        }
        // Each number up to there is a day in either system: which day it is does not matter before one of them is taken.
        $number = strlen($value) > 20 ? 0.0 : (float) $value;
        if ($number >= 1 && $number < self::LAST_DAY_NUMBER && $value[0] !== '0') {
            $this->dayNumbers->seeAt($value, (int) ($number * Moment::SECONDS_OF_DAY), isDay: ! str_contains($value, '.'));
        }
    }

    private function form(string $pattern): DateForm
    {
        return $this->forms[$pattern] ??= DateForm::of($pattern, self::TWO_DIGITS_FROM);
    }

    /** Values of a text are looked at a few times, and then no more. */
    private function isWorthwhile(string $value): bool
    {
        return strlen($value) >= 6 && strlen($value) <= 48 && ($this->unread < 200 || $this->unread * 2 < $this->seen);
    }

    /**
     * @param  array<string|int, string|null>  $found
     * @return array<string, string> which field stands first => pattern
     */
    private function orders(array $found): array
    {
        $time = $this->time($found);
        if ($found['solid'] !== null) {
            return ['year' => "yyyyMMdd{$time}"];
        }
        [$one, $two, $three] = [(string) $found['one'], (string) $found['two'], (string) $found['three']];
        $between = self::quoted((string) $found['gap']);
        $between2 = self::quoted((string) $found['gap2']);
        $isName = static fn(string $part): bool => ! ctype_digit($part);
        // A point behind a cut name belongs to the name.
        $name = static fn(string $part): string => 'MMM';
        $year = strlen($three) === 4 ? 'yyyy' : 'yy';
        $digits = static fn(string $part, string $letter): string => str_repeat($letter, strlen($part) === 2 ? 2 : 1);
        if (strlen($three) === 1 || $isName($one) && $isName($two)) {
            return strlen($one) === 4 && ! $isName($two) ? ['year' => "yyyy{$between}".$digits($two, 'M').$between2.'d'.$time] : [];
        }

        return match (true) {
            $isName($one) => ['name' => $name($one).$between.$digits($two, 'd').$between2.$year.$time],
            $isName($two) && strlen($one) <= 2 => ['name' => $digits($one, 'd').$between.$name($two).$between2.$year.$time],
            $isName($two) => strlen($one) === 4 && strlen($three) <= 2
                ? ['name' => "yyyy{$between}MMM{$between2}".$digits($three, 'd').$time]
                : [],
            strlen($one) === 4 => strlen($three) <= 2
                ? ['year' => "yyyy{$between}".$digits($two, 'M').$between2.$digits($three, 'd').$time]
                : [],
            strlen($one) > 2 => [],
            default => [
                'day' => $digits($one, 'd').$between.$digits($two, 'M').$between2.$year.$time,
                'month' => $digits($one, 'M').$between.$digits($two, 'd').$between2.$year.$time,
            ] +
                ($year === 'yy' && strlen($one) === 2
                    ? ['year' => "yy{$between}".$digits($two, 'M').$between2.$digits($three, 'd').$time]
                    : []),
        };
    }

    /** @param array<string|int, string|null> $found */
    private function layout(array $found): string
    {
        $isName = static fn(?string $part): string => $part === null || ctype_digit($part) ? '9' : 'A';

        return implode('', [
            $found['solid'] === null ? '' : 'solid',
            $isName($found['one']),
            $found['gap'],
            $isName($found['two']),
            $found['gap2'],
            strlen((string) $found['one']) === 4 && $isName($found['one']) === '9' ? 'year' : '',
            strlen((string) $found['three']) === 4 ? '9999' : '99',
            $found['lead'],
            $found['second'] === null ? '' : ':',
            $found['fraction'] === null ? '' : '.',
            $found['half'] === null ? '' : 'am',
            $found['offset'] === null ? '' : 'Z',
        ]);
    }

    /** @param array<string|int, string|null> $found */
    private function time(array $found): string
    {
        if ($found['hour'] === null) {
            return '';
        }
        $hour = str_repeat($found['half'] === null ? 'H' : 'h', strlen($found['hour']));
        $space = static fn(?string $part): string => str_starts_with((string) $part, ' ') ? ' ' : '';

        return ($found['lead'] === 'T' ? "'T'" : (string) $found['lead'])."{$hour}:mm".
            ($found['second'] === null ? '' : ':ss').
            ($found['fraction'] === null ? '' : '.SSS').
            ($found['half'] === null ? '' : $space($found['half']).'a').
            ($found['offset'] === null ? '' : $space($found['offset']).'XXX');
    }

    private static function quoted(string $gap): string
    {
        return $gap === ' de ' ? " 'de' " : $gap;
    }
}
