<?php

declare(strict_types=1);

namespace NineTally\Core\Records;

use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Side;

final readonly class NoRecords implements RecordSource
{
    public function stack(string $dataset, Side $side): ?PartStack
    {
        return null;
    }
}
