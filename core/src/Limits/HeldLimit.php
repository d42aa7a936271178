<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

use Brick\Math\BigDecimal;
use Brick\Math\BigRational;
use Brick\Math\RoundingMode;

/** A limit with the figure that was held against it. */
final readonly class HeldLimit
{
    private const PLACES = 2;

    public LimitState $state;

    /** @param string $worst of the limit, which has one */
    private function __construct(public Limit $limit, public string $worst, public Measured $measured, public bool $isInherited)
    {
        $this->state = match ($measured->isWithin($worst, $limit->figure->isAtLeast())) {
            null => LimitState::NoFigure,
            true => LimitState::Holds,
            false => LimitState::Fails,
        };
    }

    /** @return self|null null where the limit is lifted */
    public static function of(Limit $limit, Measured $measured, bool $isInherited): ?self
    {
        return $limit->worst === null ? null : new self($limit, $limit->worst, $measured, $isInherited);
    }

    public function value(): string
    {
        return $this->measured->text($this->limit->figure->unit());
    }

    /** How far it is from the worst value: "2 beyond", "0.48 points left"; null where there is no figure. */
    public function distance(): ?string
    {
        if ($this->measured->value === null || $this->measured->isHidden) {
            return null;
        }
        $unit = $this->limit->figure->unit();
        $apart = $this->measured->value->minus(BigRational::of($this->worst))->abs();
        if ($unit === LimitUnit::Percent || $unit === LimitUnit::Hours) {
            $shown = $apart->toScale(self::PLACES, RoundingMode::DOWN);
            $name = $unit === LimitUnit::Percent ? 'points' : 'h';
            $written = ($shown->isZero() ? 'under 0.01' : LimitUnit::Count->written(self::plain($shown)))." {$name}";
        } else {
            $written = $unit->written(self::plain($apart->toBigDecimal()));
        }

        return $apart->isZero() ? 'none left' : $written.($this->state === LimitState::Holds ? ' left' : ' beyond');
    }

    private static function plain(BigDecimal $number): string
    {
        return (string) $number->stripTrailingZeros()->toScale(max(0, $number->stripTrailingZeros()->getScale()));
    }
}
