<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/**
 * A number as it is written in text, read exactly: no float, no limit on the digits.
 *
 * Read without being declared: an optional sign, digits with or without groups of three behind commas, a decimal point,
 * an exponent. "007" is not read, for leading zeros are how identifiers look; a decimal comma is not read, for "1,234"
 * could be either.
 */
final readonly class DecimalText
{
    private const WRITTEN = '/^(?<sign>[+\-\x{2212}]?)(?<whole>0|[1-9]\d{0,2}(?:,\d{3})+|[1-9]\d*|)(?:\.(?<part>\d*))?(?:[eE](?<exponent>[+\-]?\d{1,9}))?$/uD';

    /**
     * One spelling for each number: sign, digits without zeros at either end, and the power of ten they are multiplied by.
     *
     * @return string|null such as "-12345e-1"; null when the text is not a number
     */
    public static function canonical(string $text): ?string
    {
        if (preg_match(self::WRITTEN, $text, $found) !== 1) {
            return null;
        }
        $part = $found['part'] ?? '';
        $digits = str_replace(',', '', $found['whole']).$part;
        if ($digits === '') {
            return null;
        }
        $significant = rtrim($digits, '0');
        if (ltrim($significant, '0') === '') {
            return '0';
        }
        $exponent = (int) ($found['exponent'] ?? 0) - strlen($part) + strlen($digits) - strlen($significant);

        return (in_array($found['sign'], ['', '+'], true) ? '' : '-').ltrim($significant, '0').'e'.$exponent;
    }
}
