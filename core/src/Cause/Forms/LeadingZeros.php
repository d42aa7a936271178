<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** Zeros in front of a number that identifies something: 007 and 7, 014A and 14A. */
final readonly class LeadingZeros implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::LeadingZeros;
    }

    public function canonical(string $value): string
    {
        return ($value[0] ?? '') !== '0' ? $value : preg_replace('/^0+(?=\d+\p{L}{0,3}$)/uD', '', $value) ?? $value;
    }
}
