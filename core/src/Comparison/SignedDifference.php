<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\PlainNumber;
use NineTally\Core\Value\Reading;

/**
 * What a cell of numbers adds to the target, or takes from it: the target's number less the source's. A side without a value has nothing,
 * so a lost value is worth all that it was.
 */
final readonly class SignedDifference
{
    /** Behind the point of the relative difference. */
    private const PLACES = 6;

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

    /** Of a number other than nought that is written in another form: a whole column may be. */
    public static function nought(): self
    {
        /** @var self|null $nought */
        static $nought = null;

        return $nought ??= new self(Decimal::of(false, '', '', 0), 0.0);
    }

    /** @return self|null null where one is written in another way than plainly, or has too many digits */
    public static function ofPlain(string $source, string $target): ?self
    {
        $from = PlainNumber::of($source);
        $to = $from === null ? null : PlainNumber::of($target);
        $apart = $from === null ? null : $to?->minus($from);

        if ($from === null || $apart === null) {
            return null;
        }
        if ($apart->units === 0 && $from->units !== 0) {
            return self::nought();
        }

        return new self($apart->decimal(), $from->units === 0 ? null : round($apart->size() / abs($from->size()), self::PLACES));
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
