<?php

declare(strict_types=1);

namespace NineTally\Tests;

use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Totals\DeliveredSource;

/** Deliveries of a test, as they came. */
final readonly class GivenDeliveries implements DeliveredSource
{
    /** @param Sides<PartStack> $stacks */
    public function __construct(private Sides $stacks) {}

    public function delivered(Side $side): PartStack
    {
        return $this->stacks->of($side);
    }
}
