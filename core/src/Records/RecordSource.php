<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Side;

/** Where the records of other datasets are read from. */
interface RecordSource
{
    /** @return PartStack|null null where the side has no delivery of that dataset, so that nothing can be said of it */
    public function stack(string $dataset, Side $side): ?PartStack;
}
