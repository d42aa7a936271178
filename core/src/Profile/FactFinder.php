<?php

declare(strict_types=1);

namespace NineTally\Core\Profile;

use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** Finds what is known of a value by itself, whatever its column. */
final readonly class FactFinder
{
    /** What systems write for want of a value; no date has a day or month zero. */
    private const BLANK_TOKENS = [
        'null' => true, 'nil' => true, 'none' => true, 'n/a' => true, 'na' => true, '-' => true, '--' => true, '?' => true, '.' => true,
        'unknown' => true, 'tbc' => true, '(null)' => true, '00.00.0000' => true, '0000-00-00' => true, '00/00/0000' => true,
        '1900-01-01' => true, '9999-12-31' => true,
    ];

    private const INVISIBLE = '/(?![\t\n\r\x{85}])[\p{Cc}\p{Cf}]|\x{A0}/u';

    private Reading $identifiers;

    private Reading $moments;

    private Reading $yesNo;

    public function __construct()
    {
        $this->identifiers = new Reading;
        $this->moments = new Reading(Kind::DateTime);
        $this->yesNo = new Reading(Kind::YesNo);
    }

    public function of(string $value): ValueFacts
    {
        // Nearly all values, and of them a look at the bytes says most.
        $isPrintable = ctype_print($value);
        $moment = $this->moments->moment($value);
        // Leading zeros are how identifiers look: a column of them is no column of numbers.
        $number = $this->identifiers->number($value);

        return new ValueFacts(
            $isPrintable ? strlen($value) : mb_strlen($value),
            ! $isPrintable && strpbrk($value, "\r\n") !== false,
            ! $isPrintable && self::hasInvisible($value),
            strlen($value) <= 12 && isset(self::BLANK_TOKENS[strtolower($value)]) || trim($value) === '',
            ValueShape::of($value),
            new PlainReadings(
                $number?->canBeSummed() === true ? $number : null,
                $moment?->secondsSinceEpoch(),
                $moment?->isDay() === true,
                $this->yesNo->yesOrNo($value),
            ),
        );
    }

    public static function hasInvisible(string $value): bool
    {
        return preg_match(self::INVISIBLE, $value) === 1;
    }
}
