<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation\Formula;

use Brick\Math\BigDecimal;
use Brick\Math\Exception\MathException;
use Brick\Math\RoundingMode;
use NineTally\Core\Preparation\RowCursor;
use NineTally\Core\Value\IsoDate;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\NumberStyle;
use NineTally\Core\Value\PlainNumber;

/** Everything that a formula may call. Numbers are exact decimals, dates are written year-month-day. */
final class Functions
{
    private static ?NumberStyle $style = null;

    /** What each takes and gives, for completion and for the reference. */
    public const LISTED = [
        'column' => 'column("a name with spaces"): the cell of a column whose name is no word',
        'number' => 'number(text): the text read as a number, without zeros at its end',
        'round' => 'round(number, places): halves away from zero',
        'absolute' => 'absolute(number): without its sign',
        'least' => 'least(number, number, …)',
        'greatest' => 'greatest(number, number, …)',
        'length' => 'length(text): in characters',
        'upper' => 'upper(text)',
        'lower' => 'lower(text)',
        'trimmed' => 'trimmed(text): without spaces at its ends',
        'part' => 'part(text, from, length): from counts from 1',
        'left' => 'left(text, length)',
        'right' => 'right(text, length)',
        'replaced' => 'replaced(text, what, with)',
        'first' => 'first(a, b, …): the first that is not blank',
        'blank' => 'blank(text): whether there is no value',
        'year' => 'year(date)',
        'month' => 'month(date)',
        'day' => 'day(date)',
        'days' => 'days(from, to): how many days lie between two dates',
        'later' => 'later(date, days): the date so many days later',
    ];

    private const LONGEST_RESULT = 100_000;

    private const MOST_PLACES = 100;

    /** @param list<string> $arguments */
    public static function call(string $name, array $arguments): string|bool
    {
        $text = static fn(int $position): string => $arguments[$position] ??
            throw FormulaError::because(sprintf('%s() needs %s', $name, self::LISTED[$name] ?? 'more'));
        $number = static fn(int $position): BigDecimal => self::number($text($position));
        $count = static fn(int $position): int => self::count($text($position));

        return match ($name) {
            'number' => self::written($number(0)),
            'round' => self::rounded($text(0), min(self::MOST_PLACES, max(0, isset($arguments[1]) ? $count(1) : 0))),
            'absolute' => self::written($number(0)->abs()),
            'least' => self::written(BigDecimal::min(...self::numbers($arguments))),
            'greatest' => self::written(BigDecimal::max(...self::numbers($arguments))),
            'length' => (string) mb_strlen($text(0)),
            'upper' => mb_strtoupper($text(0)),
            'lower' => mb_strtolower($text(0)),
            'trimmed' => trim($text(0)),
            'part' => mb_substr($text(0), max(0, $count(1) - 1), max(0, $count(2))),
            'left' => mb_substr($text(0), 0, max(0, $count(1))),
            'right' => $count(1) <= 0 ? '' : mb_substr($text(0), -$count(1)),
            'replaced' => $text(1) === '' ? $text(0) : self::replaced($text(0), $text(1), $text(2)),
            'first' => array_values(array_filter($arguments, static fn(string $value): bool => $value !== ''))[0] ?? '',
            'blank' => $text(0) === '',
            'year' => (string) self::date($text(0))->date()[0],
            'month' => (string) self::date($text(0))->date()[1],
            'day' => (string) self::date($text(0))->date()[2],
            'days' => (string) (self::date($text(1))->days - self::date($text(0))->days),
            'later' => gmdate('Y-m-d', (self::date($text(0))->days + $count(1)) * Moment::SECONDS_OF_DAY),
            default => throw FormulaError::because("there is no function {$name}()"),
        };
    }

    /**
     * What is called more than all others together: rounded without being written and read in between.
     *
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $number
     * @param  \Closure(RowCursor): (string|bool|PlainNumber)  $places
     * @return \Closure(RowCursor): (string|PlainNumber)
     */
    public static function round(\Closure $number, \Closure $places, Effort $effort): \Closure
    {
        return static function (RowCursor $row) use ($number, $places, $effort): string|PlainNumber {
            $value = $number($row);
            $to = $places($row);
            $plain = $value instanceof PlainNumber ? $value : (is_string($value) ? PlainNumber::of($value) : null);
            if ($plain !== null && $to instanceof PlainNumber && $to->places === 0 && $to->units >= 0 && $to->units <= self::MOST_PLACES) {
                $effort->spend(2 * PlainNumber::LONGEST);

                return $plain->rounded($to->units) ?? self::rounded($plain->written(false), $to->units);
            }
            [$text, $digits] = [Operators::text($value), Operators::text($to)];
            $effort->spend(strlen($text) + strlen($digits));

            return self::rounded($text, min(self::MOST_PLACES, max(0, self::count($digits))));
        };
    }

    private static function rounded(string $number, int $places): string
    {
        return PlainNumber::of($number)?->rounded($places)?->written(false) ??
            self::written(self::number($number)->toScale($places, RoundingMode::HALF_UP), false);
    }

    /** As what a function takes the cells it is given; null where it gives on what it is given. */
    public static function wants(string $name): ?Wanted
    {
        return match ($name) {
            'number', 'round', 'absolute', 'least', 'greatest' => Wanted::Number,
            'year', 'month', 'day', 'days', 'later' => Wanted::Date,
            'first' => null,
            default => Wanted::Text,
        };
    }

    public static function number(string $text): BigDecimal
    {
        return self::numberOrNull($text) ?? throw FormulaError::because('a value is no number');
    }

    public static function numberOrNull(string $text): ?BigDecimal
    {
        $plain = PlainNumber::of($text);

        return $plain === null
            ? (self::$style ??= new NumberStyle)->read($text, true)?->toBigDecimal()
            : BigDecimal::ofUnscaledValue($plain->units, $plain->places);
    }

    /** Without zeros behind the point, unless they were asked for. */
    public static function written(BigDecimal $number, bool $strips = true): string
    {
        $written = (string) $number;

        return self::bounded($strips && str_contains($written, '.') ? rtrim(rtrim($written, '0'), '.') : $written);
    }

    public static function bounded(string $result): string
    {
        return strlen($result) <= self::LONGEST_RESULT ? $result : throw FormulaError::because('the result is too long');
    }

    private static function replaced(string $text, string $what, string $with): string
    {
        // How long it will be is known before it is made.
        return strlen($text) + substr_count($text, $what) * (strlen($with) - strlen($what)) <= self::LONGEST_RESULT
            ? str_replace($what, $with, $text)
            : throw FormulaError::because('the result is too long');
    }

    /**
     * @param  list<string>  $arguments
     * @return non-empty-list<BigDecimal>
     */
    private static function numbers(array $arguments): array
    {
        return $arguments === [] ? throw FormulaError::because('numbers are needed') : array_map(self::number(...), $arguments);
    }

    private static function count(string $text): int
    {
        if (strlen($text) < 10 && ctype_digit($text)) {
            return (int) $text;
        }
        try {
            return self::number($text)->toInt();
        } catch (MathException) {
            throw FormulaError::because('a count must be a whole number');
        }
    }

    private static function date(string $text): Moment
    {
        return IsoDate::read($text) ?? throw FormulaError::because('a value is no date');
    }
}
