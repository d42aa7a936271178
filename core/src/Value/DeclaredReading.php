<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * How values are read, as a plan declares it.
 *
 * @phpstan-type Declared array{blankTokens?: list<string>, decimalMark?: string, groupMark?: string, currency?: string,
 *     percent?: 'number'|'share', negatives?: 'minus'|'parentheses'|'minus-behind', dateForms?: list<string>, twoDigitYearsFrom?: int,
 *     yes?: list<string>, no?: list<string>, zone?: string}
 */
final readonly class DeclaredReading
{
    /** @param Declared $declared what is not there is as it would be by itself */
    public static function of(array $declared, Kind $kind): Reading
    {
        return new Reading(
            $kind,
            $declared['blankTokens'] ?? [],
            new NumberStyle(
                $declared['decimalMark'] ?? '.',
                $declared['groupMark'] ?? '',
                $declared['currency'] ?? '',
                $declared['percent'] ?? null,
                $declared['negatives'] ?? 'minus',
            ),
            array_map(
                static fn(string $pattern): DateForm => DateForm::of($pattern, $declared['twoDigitYearsFrom'] ?? null),
                $declared['dateForms'] ?? [],
            ),
            $declared['yes'] ?? Reading::YES,
            $declared['no'] ?? Reading::NO,
            isset($declared['zone']) ? new \DateTimeZone($declared['zone']) : null,
        );
    }
}
