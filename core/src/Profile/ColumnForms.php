<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\DateForm;
use NineTally\Core\Value\DeclaredReading;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;

/**
 * In which declared form all values of a column could be read that cannot be read without one: proposed to a person, never taken by itself.
 *
 * Values drop out forms that they do not fit, so a column of texts costs a few looks at its first values.
 *
 * @phpstan-import-type Declared from DeclaredReading
 */
final class ColumnForms
{
    private const DATES = [
        'dd/MM/yyyy', 'MM/dd/yyyy', 'd/M/yyyy', 'M/d/yyyy', 'dd.MM.yyyy', 'd.M.yyyy', 'MM.dd.yyyy', 'dd-MM-yyyy', 'MM-dd-yyyy', 'd-M-yyyy',
        'M-d-yyyy', 'yyyy/MM/dd', 'yyyy.MM.dd', 'yyyy-M-d', 'd MMM yyyy', 'dd-MMM-yyyy', 'd MMM, yyyy', 'MMM d, yyyy', 'yyyyMMdd',
    ];

    private const TIMES = ['', ' HH:mm', ' HH:mm:ss', "'T'HH:mm:ss", ' HH:mm:ss.SSS', ' h:mm a'];

    /** Decimal mark and group mark, the likelier first. */
    private const NUMBERS = [['.', ','], [',', '.'], [',', ''], [',', ' '], ['.', ' '], ['.', "'"], [',', "'"]];

    /** @var array<string, DateForm>|null by pattern: those that all values fit so far; null before the first value */
    private ?array $dates = null;

    /** @var array<int, NumberStyle>|null by place in NUMBERS */
    private ?array $numbers = null;

    private bool $hasPoint = false;

    /** A point that cannot group: not three digits behind it. */
    private bool $hasDecimalPoint = false;

    private bool $needsNumberForm = false;

    /** @var array<string, array{string, string, int, int}> by pattern: the earliest and the latest value, and where they lie */
    private array $ranges = [];

    /** A value that can be read without a form, as a plain number, an ISO date, or neither. */
    public function see(string $value, bool $isPlainNumber, bool $isDate): void
    {
        $this->seeDate($value, $isDate);
        if (! $isPlainNumber) {
            $this->seeNumber($value);
        } elseif (str_contains($value, '.')) {
            $this->hasPoint = true;
            $this->hasDecimalPoint = $this->hasDecimalPoint || preg_match('/^[+\-]?\d{1,3}(?:\.\d{3})+$/D', $value) !== 1;
        }
    }

    /**
     * @return list<array{kind: Kind, declared: Declared}> what could be declared, the likeliest first; several where the values fit several
     *     readings that disagree
     */
    public function proposals(): array
    {
        $dates = array_keys($this->dates ?? []);
        // One digit or two: the stricter form says all that the looser one does.
        $kept = [];
        foreach ($dates as $pattern) {
            $looser = str_replace(['dd', 'MM'], ['d', 'M'], str_replace('MMM', '#', $pattern));
            $isLooser = array_filter(
                $dates,
                static fn(string $other): bool => $other !== $pattern &&
                    str_replace(['dd', 'MM'], ['d', 'M'], str_replace('MMM', '#', $other)) === $looser &&
                    strlen($other) > strlen($pattern),
            );
            if ($isLooser === []) {
                $kept[] = ['kind' => str_contains($pattern, 'mm') ? Kind::DateTime : Kind::Date, 'declared' => ['dateForms' => [$pattern]]];
            }
        }

        return [...$kept, ...$this->numberProposals()];
    }

    /** @return array{string, string}|null the least and the greatest value under a form */
    public function range(string $pattern): ?array
    {
        return isset($this->ranges[$pattern]) ? [$this->ranges[$pattern][0], $this->ranges[$pattern][1]] : null;
    }

    /** @return list<array{kind: Kind, declared: Declared}> */
    private function numberProposals(): array
    {
        if (! $this->needsNumberForm) {
            return [];
        }
        $proposals = [];
        foreach (array_keys($this->numbers ?? []) as $place) {
            [$decimal, $group] = self::NUMBERS[$place];
            if ($decimal === ',' && ($group === '.' ? $this->hasDecimalPoint : $this->hasPoint)) {
                continue;
            }
            $proposals[] = [
                'kind' => Kind::Number,
                'declared' => ($decimal === '.' ? [] : ['decimalMark' => $decimal]) + ($group === '' ? [] : ['groupMark' => $group]),
            ];
        }
        // A comma alone, without a single group: the form that declares less says the same.
        $plain = array_filter($proposals, static fn(array $one): bool => $one['declared'] === ['decimalMark' => ',']);
        $withGroups = array_filter(
            $proposals,
            static fn(array $one): bool => ($one['declared']['decimalMark'] ?? '.') === ',' && isset($one['declared']['groupMark']),
        );

        return $plain === [] ? $proposals : array_values(array_diff_key($proposals, $withGroups));
    }

    private function seeDate(string $value, bool $isDate): void
    {
        if ($this->dates === []) {
            return;
        }
        if ($isDate) {
            // What needs no form stands among the values, so no form reads all of them.
            $this->dates = [];

            return;
        }
        $this->dates ??= self::dateForms($value);
        foreach ($this->dates as $pattern => $form) {
            $moment = $form->read($value);
            if ($moment === null) {
                unset($this->dates[$pattern]);

                continue;
            }
            $place = $moment->secondsSinceEpoch();
            $range = $this->ranges[$pattern] ?? [$value, $value, $place, $place];
            $this->ranges[$pattern] = [
                $place < $range[2] ? $value : $range[0],
                $place > $range[3] ? $value : $range[1],
                min($place, $range[2]),
                max($place, $range[3]),
            ];
        }
    }

    private function seeNumber(string $value): void
    {
        $this->needsNumberForm = true;
        if ($this->numbers === null) {
            $this->numbers =
                preg_match('/^\s*[+\-]?[\d.,]/', $value) === 1
                    ? array_map(static fn(array $marks): NumberStyle => new NumberStyle(...$marks), self::NUMBERS)
                    : [];
        }
        foreach ($this->numbers as $place => $style) {
            // Leading zeros are how identifiers look: a column of them is no column of numbers.
            if ($style->read(trim($value, ' '), false) === null) {
                unset($this->numbers[$place]);
            }
        }
    }

    /** @return array<string, DateForm> those that the first value may be written in */
    private static function dateForms(string $value): array
    {
        $forms = [];
        if (preg_match('/\d/', $value) !== 1 || strlen($value) > 40) {
            return [];
        }
        foreach (self::DATES as $day) {
            foreach (self::TIMES as $time) {
                $forms[$day.$time] = DateForm::of($day.$time);
            }
        }

        return $forms;
    }
}
