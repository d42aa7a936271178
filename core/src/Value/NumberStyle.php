<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * How one side writes numbers: the decimal mark, the mark between groups of three digits, and what may stand around the digits.
 *
 * Undeclared: a point, no groups, a sign in front and nothing else. Neither a decimal comma nor a grouping one is guessed, for "1,234"
 * could be either; nor is a percent sign, for 5 % is 5 to some and 0.05 to others.
 */
final readonly class NumberStyle
{
    public const DECIMAL_MARKS = ['.', ','];

    public const GROUP_MARKS = [',', '.', ' ', "'", ''];

    /** A space, a no-break space of either width, a thin space. */
    private const SPACE = '[ \x{A0}\x{202F}\x{2009}]';

    /** Whether a number may begin with what is no digit, sign or mark. */
    public bool $mayBeginWithLetter;

    private string $written;

    /**
     * @param  string  $currency  a sign or code that may stand before or behind the number; '' none may
     * @param  'number'|'share'|null  $percent  whether 5 % is 5 or 0.05; null: it cannot be read
     * @param  'minus'|'parentheses'|'minus-behind'  $negatives  how negative numbers are written; a minus in front is always read
     */
    public function __construct(
        public string $decimalMark = '.',
        public string $groupMark = '',
        public string $currency = '',
        public ?string $percent = null,
        public string $negatives = 'minus',
    ) {
        $decimal = preg_quote($decimalMark, '/');
        $group = match ($groupMark) {
            // Where spaces group digits, those that do not break are meant as well; so are both apostrophes.
            ' ' => self::SPACE,
            "'" => "['\\x{2019}]",
            default => preg_quote($groupMark, '/'),
        };
        $whole = $groupMark === '' ? '\d+' : "\\d{1,3}(?:{$group}\\d{3})+|\\d+";
        $sign = '[+\-\x{2212}]?';
        $space = self::SPACE.'?';
        $mark = $currency === '' ? '' : preg_quote($currency, '/');
        [$before, $behind] = $mark === '' ? ['', ''] : ["(?:{$mark}{$space}(?<inner>{$sign}))?", "(?:{$space}{$mark})?"];
        $number =
            "(?<sign>{$sign}){$before}(?<whole>{$whole}|)".
            "(?:{$decimal}(?<part>\\d*))?(?:[eE](?<exponent>[+\\-]?\\d{1,9}))?{$behind}".
            ($percent === null ? '' : "(?<percent>{$space}%)?");
        $this->written = match ($negatives) {
            'parentheses' => "/^(?<open>\\({$space}(?![+\\-\\x{2212}]))?{$number}(?(<open>){$space}\\))\$/uD",
            'minus-behind' => "/^{$number}(?<behind>{$space}[\\-\\x{2212}])?\$/uD",
            default => "/^{$number}\$/uD",
        };
        $this->mayBeginWithLetter = $currency !== '';
    }

    /** @param bool $takesLeadingZeros undeclared they are how identifiers look, and "007" is no number */
    public function read(string $text, bool $takesLeadingZeros): ?Decimal
    {
        // Digits, with a point between them where that is the mark: nearly all numbers, and the same number in every style.
        $whole = strspn($text, '0123456789');
        if ($whole > 0 && ($whole === strlen($text) || $this->isPlainPart($text, $whole))) {
            return ! $takesLeadingZeros && $whole > 1 && $text[0] === '0'
                ? null
                : Decimal::of(false, substr($text, 0, $whole), substr($text, $whole + 1), 0);
        }
        if (preg_match($this->written, $text, $found) !== 1) {
            return null;
        }
        $whole = preg_replace('/\D+/', '', $found['whole']) ?? '';
        $part = $found['part'] ?? '';
        if ($whole.$part === '' || ! $takesLeadingZeros && strlen($whole) > 1 && $whole[0] === '0') {
            return null;
        }
        $signs = array_filter([$found['sign'], $found['inner'] ?? '', $found['behind'] ?? '', $found['open'] ?? '']);
        if (count($signs) > 1) {
            return null;
        }
        $exponent = (int) ($found['exponent'] ?? 0) - ($this->percent === 'share' && ($found['percent'] ?? '') !== '' ? 2 : 0);

        return Decimal::of($signs !== [] && reset($signs) !== '+', $whole, $part, $exponent);
    }

    private function isPlainPart(string $text, int $whole): bool
    {
        return $text[$whole] === $this->decimalMark &&
            $whole + 1 < strlen($text) &&
            $whole + 1 + strspn($text, '0123456789', $whole + 1) === strlen($text);
    }

    /** In this style, with the currency in front and without a percent sign. */
    public function written(Decimal $number): string
    {
        [$whole, $part] = [...explode('.', ltrim($number->written(), '-'), 2), ''];
        $digits = preg_replace('/\B(?=(\d{3})+$)/', $this->groupMark, $whole).($part === '' ? '' : $this->decimalMark.$part);
        $amount = $this->currency.(preg_match('/\p{L}$/u', $this->currency) === 1 ? ' ' : '').$digits;

        return ! $number->isNegative ? $amount : match ($this->negatives) {
            'parentheses' => "({$amount})",
            'minus-behind' => "{$amount}-",
            default => "-{$amount}",
        };
    }
}
