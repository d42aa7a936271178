<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ReadForm;
use NineTally\Core\Comparison\CellPair;

/** Yes and no in two writings. */
final readonly class YesNoForm implements ReadForm
{
    public function id(): CauseId
    {
        return CauseId::YesNoForm;
    }

    public function joins(CellPair $pair): bool
    {
        $source = $pair->sourceReading->yesOrNo($pair->source);

        return $source !== null && $source === $pair->targetReading->yesOrNo($pair->target);
    }
}
