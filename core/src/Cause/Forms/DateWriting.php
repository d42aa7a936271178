<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ReadForm;
use NineTally\Core\Comparison\CellPair;

/** One day or one time in two writings, under the forms and zones that each side declares. */
final readonly class DateWriting implements ReadForm
{
    public function id(): CauseId
    {
        return CauseId::DateForm;
    }

    public function joins(CellPair $pair): bool
    {
        $moments = $pair->moments();

        return $moments !== null && $moments[0]->isEqualTo($moments[1]);
    }
}
