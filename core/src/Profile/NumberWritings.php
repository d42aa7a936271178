<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Currency;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\NumberStyle;

/** The ways in which the numbers of a column can be read that are not plain: which mark is which, and what stands around the digits. */
final class NumberWritings
{
    /** Decimal mark and group mark, the likelier first. */
    private const MARKS = [['.', ','], [',', '.'], ['.', ''], [',', ''], [',', ' '], ['.', ' '], ['.', "'"], [',', "'"]];

    private const SIGN = '[^\d\s.,\'’()+\-−%\x{A0}\x{202F}\x{2009}]{1,4}\.?';

    private const SPACE = '[ \x{A0}\x{202F}\x{2009}]*';

    private const VALUE = '/^(?<open>\()?'.self::SPACE.'(?<minus>[+\-−])?(?<before>'.self::SIGN.')?'.self::SPACE.'(?<inner>[+\-−])?'.
        '(?<digits>[\d.,](?:[\d.,\'’ \x{A0}\x{202F}\x{2009}]*\d[.,]?)?(?:[eE][+\-]?\d{1,9})?)'.self::SPACE.'(?<percent>%)?'.
        '(?<behind>'.self::SIGN.')?'.self::SPACE.'(?<close>\))?(?<last>[\-−])?$/Du';

    /** @var list<NumberStyle> */
    private readonly array $styles;

    /** @var array<int, int> values that each style reads, by place in MARKS */
    private array $read;

    private int $seen = 0;

    private int $unread = 0;

    private int $percent = 0;

    private int $plainWhole = 0;

    private int $plainWithPoint = 0;

    /** A point that cannot group: not three digits behind it. */
    private bool $hasDecimalPoint = false;

    private bool $needsForm = false;

    /** @var array<string, int> sign => values */
    private array $currencies = [];

    /** @var array<'parentheses'|'minus-behind', int> */
    private array $negatives = [];

    public function __construct()
    {
        $this->styles = array_map(static fn(array $marks): NumberStyle => new NumberStyle(...$marks), self::MARKS);
        $this->read = array_fill(0, count(self::MARKS), 0);
    }

    /** @param bool $isPlain whether it can be read without any declaration */
    public function see(string $value, bool $isPlain): void
    {
        $this->seen++;
        if ($isPlain) {
            $this->seePlain($value);

            return;
        }
        $this->needsForm = true;
        $isWorthwhile = $this->unread < 200 || $this->unread * 2 < $this->seen;
        if (! $isWorthwhile || strlen($value) > 60 || preg_match(self::VALUE, trim($value, ' '), $found, PREG_UNMATCHED_AS_NULL) !== 1) {
            $this->unread++;

            return;
        }
        $sign = $found['before'] ?? $found['behind'];
        $isAmount =
            ($sign === null || Currency::isSign($sign)) &&
            ($found['before'] === null || $found['behind'] === null) &&
            ($found['open'] === null) === ($found['close'] === null) &&
            count(
                array_filter(
                    [$found['open'], $found['minus'], $found['inner'], $found['last']],
                    static fn(?string $one): bool => $one !== null,
                ),
            ) <= 1;
        if (! $isAmount) {
            $this->unread++;

            return;
        }
        $this->count($found, $sign);
        $isRead = false;
        foreach ($this->styles as $place => $style) {
            // Leading zeros are how identifiers look: a column of them is no column of numbers.
            if ($style->read((string) $found['digits'], false) !== null) {
                $this->read[$place]++;
                $isRead = true;
            }
        }
        $this->unread += $isRead ? 0 : 1;
    }

    /** @return list<PossibleReading> the likelier first */
    public function readings(): array
    {
        if (! $this->needsForm || count($this->currencies) > 1 || count($this->negatives) > 1 || $this->seen === $this->unread) {
            return [];
        }
        $around = array_filter([
            'currency' => (string) array_key_first($this->currencies),
            'negatives' => (string) array_key_first($this->negatives),
        ], static fn(string $one): bool => $one !== '');
        $readings = [];
        foreach ($this->marks() as $place => $declared) {
            foreach ($this->percent === 0 ? [[]] : [['percent' => 'number'], ['percent' => 'share']] as $percent) {
                /** @var array{decimalMark?: string, groupMark?: string, currency?: string, percent?: 'number'|'share',
                 *     negatives?: 'parentheses'|'minus-behind'} $all */
                $all = [...$declared, ...$around, ...$percent];
                $readings[] = new PossibleReading(Kind::Number, $all, $this->seen - $this->isReadBy($place));
            }
        }
        usort($readings, static fn(PossibleReading $one, PossibleReading $other): int => $one->unread <=> $other->unread);

        return $readings;
    }

    /** @return array<int, array{decimalMark?: string, groupMark?: string}> by place in MARKS: those that nothing speaks against */
    private function marks(): array
    {
        $counts = array_map($this->isReadBy(...), array_keys(self::MARKS));
        $most = max(1, ...$counts);
        $possible = [];
        foreach (self::MARKS as $place => [$decimal, $group]) {
            if ($counts[$place] === $most) {
                $possible[$place] = ($decimal === '.' ? [] : ['decimalMark' => $decimal]) + ($group === '' ? [] : ['groupMark' => $group]);
            }
        }
        // Without a single group the form that declares less says the same.
        foreach (['.', ','] as $decimal) {
            $plain = array_search([$decimal, ''], self::MARKS, true);
            if (isset($possible[$plain])) {
                $possible = array_filter(
                    $possible,
                    static fn(int $place): bool => $place === $plain || self::MARKS[$place][0] !== $decimal,
                    ARRAY_FILTER_USE_KEY,
                );
            }
        }

        return $possible;
    }

    /** What needs no form is not read in every one: whether it has a point, and where, tells which of them would read it. */
    private function seePlain(string $value): void
    {
        if (! str_contains($value, '.')) {
            $this->plainWhole++;

            return;
        }
        $this->plainWithPoint++;
        $this->hasDecimalPoint = $this->hasDecimalPoint || preg_match('/^[+\-]?\d{1,3}(?:\.\d{3})+$/D', $value) !== 1;
    }

    private function isReadBy(int $place): int
    {
        [$decimal, $group] = self::MARKS[$place];

        $takesPoint = $decimal === '.' || $group === '.' && ! $this->hasDecimalPoint;

        return $this->read[$place] + $this->plainWhole + ($takesPoint ? $this->plainWithPoint : 0);
    }

    /** @param array<string|int, string|null> $found */
    private function count(array $found, ?string $sign): void
    {
        if ($sign !== null) {
            $this->currencies[$sign] = ($this->currencies[$sign] ?? 0) + 1;
        }
        $this->percent += $found['percent'] === null ? 0 : 1;
        $way = $found['open'] !== null ? 'parentheses' : ($found['last'] !== null ? 'minus-behind' : null);
        if ($way !== null) {
            $this->negatives[$way] = ($this->negatives[$way] ?? 0) + 1;
        }
    }
}
