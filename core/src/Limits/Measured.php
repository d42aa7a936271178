<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

use Brick\Math\BigDecimal;
use Brick\Math\BigNumber;
use Brick\Math\BigRational;
use Brick\Math\RoundingMode;
use NineTally\Core\Figures\Percentage;

/** A figure as it came out, exact: a share is kept as its two counts. */
final readonly class Measured
{
    /** @param BigRational|null $value in the unit of the figure, so of a share in percent */
    private function __construct(
        public ?BigRational $value,
        private ?Percentage $share = null,
        private string $words = '',
        public bool $isHidden = false,
    ) {}

    public static function count(int $count): self
    {
        return new self(BigRational::of($count));
    }

    /** 0 of 0 is no figure. */
    public static function share(int $part, int $whole): self
    {
        return $whole === 0 ? self::none() : new self(BigRational::nd($part * 100, $whole), new Percentage($part, $whole));
    }

    /** @param string $decimal exact */
    public static function amount(string $decimal): self
    {
        return new self(BigRational::of($decimal));
    }

    /** @param list<string> $decimals of which the largest counts, whatever its sign */
    public static function largestOf(array $decimals): self
    {
        return new self(
            BigRational::of((string) BigDecimal::max('0', ...array_map(static fn(string $of) => BigDecimal::of($of)->abs(), $decimals))),
        );
    }

    /** @param list<string> $decimals whose sum counts, whatever its sign */
    public static function netOf(array $decimals): self
    {
        return new self(BigRational::of((string) BigDecimal::sum('0', ...$decimals)->abs()));
    }

    public static function hours(int $seconds): self
    {
        return new self(BigRational::nd($seconds, 3_600));
    }

    /** @param string $percent that an estimate stays under, a decimal */
    public static function bound(string $percent): self
    {
        return new self(BigRational::of($percent), words: "under {$percent} %");
    }

    /** @param string $why such as that nobody looked yet */
    public static function none(string $why = ''): self
    {
        return new self(null, words: $why);
    }

    /** The same for whoever may not see it: it decides, and is not told. */
    public function hidden(): self
    {
        return new self($this->value, null, 'masked', true);
    }

    public function text(LimitUnit $unit): string
    {
        return match (true) {
            $this->value === null => $this->words === '' ? 'no figure' : "no figure: {$this->words}",
            $this->share !== null => $this->share->text(),
            $this->words !== '' => $this->words,
            // Hours may go on for ever behind the point.
            $unit === LimitUnit::Hours => $unit->written((string) $this->value->toScale(2, RoundingMode::UP)),
            default => $unit->written((string) $this->value->toBigDecimal()),
        };
    }

    /** Whether it is no worse: exact figures decide, not what is shown of a share. Null where there is none. */
    public function isWithin(BigNumber|string $worst, bool $isAtLeast): ?bool
    {
        $order = $this->value?->compareTo($worst);

        return match (true) {
            $order === null => null,
            $isAtLeast => $order >= 0,
            default => $order <= 0,
        };
    }

    /** As it is kept: a number, or numerator and denominator; null where there is none. */
    public function exact(): ?string
    {
        return $this->value === null ? null : (string) $this->value->simplified();
    }
}
