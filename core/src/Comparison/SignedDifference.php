<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * What a cell of numbers adds to the target, or takes from it: the target's number less the source's. A side without a value has nothing,
 * so a lost value is worth all that it was.
 */
final readonly class SignedDifference
{
    /** Behind the point of the relative difference. */
    private const PLACES = 6;

    /** A double holds every whole number of so many digits. */
    private const EXACT_DIGITS = 15;

    /** @param float|null $relative to the size of the source's number, 0.25 for a quarter more; null where that is nought or absent */
    private function __construct(public Decimal $value, public ?float $relative) {}

    /**
     * @param  Decimal|null  $source  null where the side has no value
     * @return self|null null where neither has a value, or the numbers have too many digits to be added up
     */
    public static function between(?Decimal $source, ?Decimal $target): ?self
    {
        $difference = match (true) {
            $source === null => $target,
            $target === null => $source->negated(),
            default => $target->minus($source),
        };
        if ($difference === null || ! $difference->canBeSummed()) {
            return null;
        }

        return new self($difference, $source === null || $source->isZero() ? null : self::relative($difference, $source));
    }

    /**
     * Of numbers that are digits with a point between them or none, as nearly all are: by the machine's integers, which are exact within
     * so few digits, and so is one division of them (IEEE 754, section 5.4.1).
     *
     * @return self|null null where one is written in another way, or has more digits
     */
    public static function ofPlain(string $source, string $target): ?self
    {
        [$from, $fromPlaces] = self::plain($source);
        [$to, $toPlaces] = self::plain($target);
        $places = max($fromPlaces, $toPlaces);
        if (
            $from === null ||
            $to === null ||
            strlen($source) + $places - $fromPlaces > self::EXACT_DIGITS ||
            strlen($target) + $places - $toPlaces > self::EXACT_DIGITS
        ) {
            return null;
        }
        $from *= 10 ** ($places - $fromPlaces);
        $apart = $to * 10 ** ($places - $toPlaces) - $from;
        $size = 10 ** $places;

        return new self(
            Decimal::of($apart < 0, (string) abs($apart), '', -$places),
            $from === 0 ? null : round($apart / $size / ($from / $size), self::PLACES),
        );
    }

    /** @return array{int|null, int} the digits as one number, and how many of them stand behind the point */
    private static function plain(string $number): array
    {
        $length = strlen($number);
        if ($length === 0 || $length > self::EXACT_DIGITS || strspn($number, '0123456789.') !== $length) {
            return [null, 0];
        }
        $point = strpos($number, '.');
        if ($point === false) {
            return [(int) $number, 0];
        }

        return $point === 0 || $point === $length - 1 || strpos($number, '.', $point + 1) !== false
            ? [null, 0]
            : [(int) (substr($number, 0, $point).substr($number, $point + 1)), $length - $point - 1];
    }

    /** As it was written down: an exact decimal. */
    public static function kept(?string $value, ?float $relative): ?self
    {
        $number = $value === null ? null : (new Reading(Kind::Number))->number($value);

        return $number === null ? null : new self($number, $relative);
    }

    private static function relative(Decimal $difference, Decimal $source): ?float
    {
        $ratio = (float) $difference->canonical() / abs((float) $source->canonical() ?: INF);

        return is_finite($ratio) ? round($ratio, self::PLACES) : null;
    }
}
