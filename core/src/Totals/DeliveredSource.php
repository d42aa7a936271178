<?php

declare(strict_types=1);

namespace NineTally\Core\Totals;

use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Side;

/** Where the rows of a side are read as they were delivered, before any step. */
interface DeliveredSource
{
    public function delivered(Side $side): PartStack;
}
