<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * How one side writes numbers: the decimal mark, and the mark between groups of three digits.
 *
 * Undeclared: a point, and no groups. Neither a decimal comma nor a grouping one is guessed, for "1,234" could be either.
 */
final readonly class NumberStyle
{
    public const DECIMAL_MARKS = ['.', ','];

    public const GROUP_MARKS = [',', '.', ' ', "'", ''];

    private string $written;

    public function __construct(public string $decimalMark = '.', public string $groupMark = '')
    {
        $decimal = preg_quote($decimalMark, '/');
        // Where spaces group digits, a no-break space of either width is meant as well.
        $group = $groupMark === ' ' ? '[ \x{A0}\x{202F}]' : preg_quote($groupMark, '/');
        $whole = $groupMark === '' ? '\d+' : "\\d{1,3}(?:{$group}\\d{3})+|\\d+";
        $this->written = "/^(?<sign>[+\\-\\x{2212}]?)(?<whole>{$whole}|)".
            "(?:{$decimal}(?<part>\\d*))?(?:[eE](?<exponent>[+\\-]?\\d{1,9}))?\$/uD";
    }

    /** @param bool $takesLeadingZeros undeclared they are how identifiers look, and "007" is no number */
    public function read(string $text, bool $takesLeadingZeros): ?Decimal
    {
        if (preg_match($this->written, $text, $found) !== 1) {
            return null;
        }
        $whole = preg_replace('/\D+/', '', $found['whole']) ?? '';
        $part = $found['part'] ?? '';
        if ($whole.$part === '' || ! $takesLeadingZeros && strlen($whole) > 1 && $whole[0] === '0') {
            return null;
        }

        return Decimal::of(! in_array($found['sign'], ['', '+'], true), $whole, $part, (int) ($found['exponent'] ?? 0));
    }
}
