<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use Brick\Math\RoundingMode;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseRule;
use NineTally\Core\Comparison\CellPair;

/** The coarser side is the finer one, rounded at a half either way or cut: 243.20 and 243. */
final readonly class Rounding implements CauseRule
{
    public function id(): CauseId
    {
        return CauseId::Rounding;
    }

    public function facts(CellPair $pair): ?array
    {
        $numbers = $pair->numbers();
        if ($numbers === null || $numbers[0]->places() === $numbers[1]->places()) {
            return null;
        }
        [$finer, $coarser] = $numbers[0]->places() > $numbers[1]->places() ? $numbers : array_reverse($numbers);
        // Most pairs of numbers are far apart. Floats are good enough to see that, with a margin for what they cannot hold.
        [$from, $to] = [(float) $finer->canonical(), (float) $coarser->canonical()];
        if (abs($from - $to) > 1.5 * 10 ** -$coarser->places() + 1e-9 * abs($to)) {
            return null;
        }
        [$exact, $rounded] = [$finer->toBigDecimal(), $coarser->toBigDecimal()];
        if ($exact === null || $rounded === null) {
            return null;
        }
        foreach ([RoundingMode::HALF_UP, RoundingMode::DOWN, RoundingMode::HALF_EVEN, RoundingMode::HALF_DOWN] as $mode) {
            if ($exact->toScale($coarser->places(), $mode)->isEqualTo($rounded)) {
                return ['places' => $coarser->places()];
            }
        }

        return null;
    }
}
