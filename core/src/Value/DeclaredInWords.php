<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * What is declared of the values of a side or a column, in words: forms of dates by their parts and by one date that is written in them.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final readonly class DeclaredInWords
{
    /** Every part of it is another number: 31 March 2027, five to three in the afternoon and nine seconds. */
    private const EXAMPLE = 1_806_504_909;

    private const PARTS = [
        'yyyy' => 'year', 'yy' => 'year', 'MMM' => 'month', 'MM' => 'month', 'M' => 'month', 'dd' => 'day', 'd' => 'day',
    ];

    /**
     * @param  Declared  $declared
     * @return list<string>
     */
    public static function of(array $declared): array
    {
        return array_values(array_filter([
            ($declared['blankTokens'] ?? []) !== [] ? 'blank is also '.self::quoted($declared['blankTokens']) : '',
            isset($declared['decimalMark']) ? 'decimals begin with '.self::mark($declared['decimalMark']) : '',
            isset($declared['groupMark']) ? 'thousands are divided by '.self::mark($declared['groupMark']) : '',
            isset($declared['currency']) ? "amounts are in {$declared['currency']}" : '',
            match ($declared['percent'] ?? null) {
                'number' => '5 % is the number 5', 'share' => '5 % is 0.05', default => ''
            },
            match ($declared['negatives'] ?? null) {
                'parentheses' => 'negative numbers stand in parentheses',
                'minus-behind' => 'the minus stands behind the number',
                default => '',
            },
            ($declared['dateForms'] ?? []) !== []
                ? 'dates are written as '.implode(' or ', array_map(self::form(...), $declared['dateForms']))
                : '',
            isset($declared['twoDigitYearsFrom'])
                ? sprintf('years of two digits are %d to %d', $declared['twoDigitYearsFrom'], $declared['twoDigitYearsFrom'] + 99)
                : '',
            ($declared['yes'] ?? []) !== [] ? 'yes is '.self::quoted($declared['yes']) : '',
            ($declared['no'] ?? []) !== [] ? 'no is '.self::quoted($declared['no']) : '',
            isset($declared['zone']) ? "times are of {$declared['zone']}" : '',
        ]));
    }

    /** Such as "day/month/year (31/03/2027)". */
    public static function form(string $form): string
    {
        $dayNumber = DayNumber::tryFrom($form);
        if ($dayNumber !== null) {
            return 'numbers of days since '.($dayNumber === DayNumber::Since1900 ? '1900' : '1904');
        }
        $written = (new \IntlDateFormatter(
            'en',
            \IntlDateFormatter::NONE,
            \IntlDateFormatter::NONE,
            'UTC',
            \IntlDateFormatter::GREGORIAN,
            $form,
        ))->format(self::EXAMPLE);
        $parts = preg_replace_callback(
            "/'([^']*)'|([A-Za-z])\\2*/",
            static fn(array $found): string => $found[1] !== '' ? $found[1] : self::PARTS[$found[0]] ?? '',
            preg_replace("/(?:'T'|[ ,]*)[Hh]{1,2}:mm.*$/", '', $form) ?? $form,
        );

        return $parts.(str_contains($form, 'mm') ? ' with a time' : '').(is_string($written) ? " ({$written})" : '');
    }

    private static function mark(string $mark): string
    {
        return match ($mark) {
            ',' => 'a comma',
            '.' => 'a point',
            ' ' => 'a space',
            "'", '’' => 'an apostrophe',
            '' => 'nothing',
            default => "\"{$mark}\"",
        };
    }

    /** @param list<string> $all */
    private static function quoted(array $all): string
    {
        return '"'.implode('", "', $all).'"';
    }
}
