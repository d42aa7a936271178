<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** Texts and plain numbers whose difference shows at once, so that nothing has to be read. */
final readonly class SimpleDifference
{
    /**
     * @param  CellResult  $letterCase  what is said of capitals alone
     * @param  CellResult  $numberForm  what is said of zeros at the end alone
     */
    public function __construct(private bool $isText, private CellResult $letterCase, private CellResult $numberForm) {}

    /**
     * Differences that a look at the bytes proves: capitals alone, zeros at the end of a number alone. No cause that comes earlier can
     * explain them.
     */
    public function of(string $source, string $target): ?CellResult
    {
        $length = strlen($source);
        if (
            $length !== 0 &&
            strspn($source, '0123456789.') === $length &&
            $target !== '' &&
            strspn($target, '0123456789.') === strlen($target)
        ) {
            $isNumber =
                $source !== $target &&
                substr_count($source, '.') <= 1 &&
                substr_count($target, '.') <= 1 &&
                self::withoutZeros($source) === self::withoutZeros($target) &&
                ($source[0] !== '0' || ($source[1] ?? '.') === '.') &&
                $source[0] !== '.' &&
                $target[0] !== '.';

            return $isNumber ? $this->numberForm : null;
        }
        if (
            $this->isText &&
            $length === strlen($target) &&
            $source !== $target &&
            preg_match('/[\x80-\xFF]/', $source.$target) !== 1 &&
            strcasecmp($source, $target) === 0
        ) {
            return $this->letterCase;
        }

        return null;
    }

    /** A plain number without leading zeros has no other form than another number's, and that was looked for before. */
    public static function areDigits(string $value): bool
    {
        return $value !== '' && $value[0] !== '0' && strspn($value, '0123456789.') === strlen($value) && substr_count($value, '.') <= 1;
    }

    private static function withoutZeros(string $number): string
    {
        return str_contains($number, '.') ? rtrim(rtrim($number, '0'), '.') : $number;
    }
}
