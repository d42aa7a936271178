<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

use Brick\Math\BigDecimal;

/** How far two numbers, days or times may be apart and still pass. */
final readonly class Tolerance
{
    public const ABSOLUTE = 'absolute';

    /** A share of the larger magnitude: "0.01" is one per cent. */
    public const RELATIVE = 'relative';

    public const DAYS = 'days';

    public const SECONDS = 'seconds';

    public function __construct(public string $by, public BigDecimal $most) {}

    public function allowsNumbers(BigDecimal $source, BigDecimal $target): bool
    {
        $most = match ($this->by) {
            self::ABSOLUTE => $this->most,
            self::RELATIVE => $this->most->multipliedBy($source->abs()->isGreaterThan($target->abs()) ? $source->abs() : $target->abs()),
            default => null,
        };

        return $most !== null && $source->minus($target)->abs()->isLessThanOrEqualTo($most);
    }

    public function allowsMoments(Moment $source, Moment $target): bool
    {
        $unit = match ($this->by) {
            self::DAYS => Moment::SECONDS_OF_DAY,
            self::SECONDS => 1,
            default => null,
        };

        return $unit !== null && $source->isInstant() === $target->isInstant()
            && $this->most->multipliedBy($unit)->isGreaterThanOrEqualTo(abs($source->secondsSinceEpoch() - $target->secondsSinceEpoch()));
    }
}
