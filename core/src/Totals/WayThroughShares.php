<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use Brick\Math\BigDecimal;

/**
 * Which shares lie between one side's total and a figure that somebody else has: those that add up to what they are apart by, exactly. The
 * others lie between that figure and the other side.
 */
final readonly class WayThroughShares
{
    /** Of more shares some add up to nearly anything, and that would tell nothing. */
    public const MOST_SHARES = 10;

    /**
     * @param  list<BigDecimal>  $nets  of all shares
     * @return list<int>|null places of the fewest that add up; null where none do, or there are too many
     */
    public static function of(BigDecimal $apart, array $nets): ?array
    {
        if (count($nets) > self::MOST_SHARES) {
            return null;
        }
        $best = null;
        for ($some = 0; $some < 1 << count($nets); $some++) {
            $places = array_values(array_filter(array_keys($nets), static fn(int $place): bool => ($some >> $place & 1) === 1));
            if ($best !== null && count($places) >= count($best)) {
                continue;
            }
            $sum = BigDecimal::zero();
            foreach ($places as $place) {
                $sum = $sum->plus($nets[$place]);
            }
            if ($sum->isEqualTo($apart)) {
                $best = $places;
            }
        }

        return $best;
    }
}
