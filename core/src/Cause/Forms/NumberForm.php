<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ReadForm;
use NineTally\Core\Comparison\CellPair;

/** One number in two writings: 1,234.50 and 1234.5, 1e3 and 1000, -0 and 0. */
final readonly class NumberForm implements ReadForm
{
    public function id(): CauseId
    {
        return CauseId::NumberForm;
    }

    public function joins(CellPair $pair): bool
    {
        $numbers = $pair->numbers();

        return $numbers !== null && $numbers[0]->isEqualTo($numbers[1]);
    }
}
