<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ReadForm;
use NineTally\Core\Comparison\CellPair;

/** Two ways to say that there is no value: two tokens, or a token and the empty cell. */
final readonly class BlankToken implements ReadForm
{
    public function id(): CauseId
    {
        return CauseId::BlankToken;
    }

    public function joins(CellPair $pair): bool
    {
        return $pair->isBlankInSource() && $pair->isBlankInTarget();
    }
}
