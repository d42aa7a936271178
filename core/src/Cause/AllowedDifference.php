<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

use Brick\Math\BigDecimal;
use Brick\Math\RoundingMode;
use NineTally\Core\Comparison\CellPair;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Value\Moment;
use NineTally\Core\Value\Tolerance;

/** A difference of value that a column pair lets pass: within its tolerance, or by its declared rounding. */
final readonly class AllowedDifference
{
    public function __construct(private ColumnPair $pair) {}

    public function isPossible(): bool
    {
        return $this->pair->tolerance !== null || $this->pair->rounding !== null;
    }

    public function of(CellPair $pair): ?CellResult
    {
        return $this->tolerated($pair) ?? $this->rounded($pair);
    }

    private function tolerated(CellPair $pair): ?CellResult
    {
        $tolerance = $this->pair->tolerance;
        if ($tolerance === null) {
            return null;
        }
        if (($numbers = $pair->numbers()) !== null) {
            [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];
            if ($source !== null && $target !== null && $tolerance->allowsNumbers($source, $target)) {
                return CellResult::forgiven(Cause::of(CauseId::Tolerance), $target->minus($source));
            }
        }
        $moments = $pair->moments();
        if ($moments === null || ! $tolerance->allowsMoments(...$moments)) {
            return null;
        }
        $seconds = BigDecimal::of($moments[1]->secondsSinceEpoch() - $moments[0]->secondsSinceEpoch());

        return CellResult::forgiven(
            Cause::of(CauseId::Tolerance),
            $tolerance->by === Tolerance::DAYS
                ? $seconds->dividedBy(Moment::SECONDS_OF_DAY, 5, RoundingMode::HALF_UP)->stripTrailingZeros()
                : $seconds,
        );
    }

    private function rounded(CellPair $pair): ?CellResult
    {
        $numbers = $this->pair->rounding === null ? null : $pair->numbers();
        if ($this->pair->rounding === null || $numbers === null) {
            return null;
        }
        [$source, $target] = [$numbers[0]->toBigDecimal(), $numbers[1]->toBigDecimal()];

        return $source !== null && $target !== null && $this->pair->rounding->joins($source, $target)
            ? CellResult::forgiven(Cause::of(CauseId::Rounding, ['places' => $this->pair->rounding->places]))
            : null;
    }
}
