<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use Brick\Math\BigDecimal;
use NineTally\Core\Comparison\Worth;
use NineTally\Core\Totals\ExactSum;
use NineTally\Core\Value\Decimal;

/** Adds up the differences of cells as they pass. */
final class WorthCount
{
    private int $upwards = 0;

    private int $downwards = 0;

    private int $noughts = 0;

    private readonly ExactSum $up;

    private readonly ExactSum $down;

    private ?Decimal $mostUp = null;

    private ?Decimal $mostDown = null;

    public function __construct()
    {
        $this->up = new ExactSum;
        $this->down = new ExactSum;
    }

    /** @param Decimal $difference that can be added up */
    public function add(Decimal $difference): void
    {
        if ($difference->isZero()) {
            $this->noughts++;
        } elseif ($difference->isNegative) {
            $this->downwards++;
            $this->down->add($difference);
            $this->mostDown = $this->mostDown?->isLargerThan($difference) === true ? $this->mostDown : $difference;
        } else {
            $this->upwards++;
            $this->up->add($difference);
            $this->mostUp = $this->mostUp?->isLargerThan($difference) === true ? $this->mostUp : $difference;
        }
    }

    /** Those of cells that come behind these. */
    public function take(self $later): void
    {
        $this->noughts += $later->noughts;
        $this->upwards += $later->upwards;
        $this->downwards += $later->downwards;
        $this->up->addSum($later->up);
        $this->down->addSum($later->down);
        if ($later->mostUp !== null) {
            $this->mostUp = $this->mostUp?->isLargerThan($later->mostUp) === true ? $this->mostUp : $later->mostUp;
        }
        if ($later->mostDown !== null) {
            $this->mostDown = $this->mostDown?->isLargerThan($later->mostDown) === true ? $this->mostDown : $later->mostDown;
        }
    }

    /** @return Worth|null null where no cell had a difference */
    public function worth(): ?Worth
    {
        return $this->upwards + $this->downwards + $this->noughts === 0 ? null : new Worth(
            $this->upwards,
            $this->up->total(),
            self::number($this->mostUp),
            $this->downwards,
            $this->down->total(),
            self::number($this->mostDown),
            $this->noughts,
        );
    }

    private static function number(?Decimal $most): BigDecimal
    {
        return $most?->toBigDecimal() ?? BigDecimal::zero();
    }
}
