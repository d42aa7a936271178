<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** CR LF, CR, LF and the line ends of Unicode (UAX #14, mandatory breaks). */
final readonly class LineEndForm implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::LineEnds;
    }

    public function canonical(string $value): string
    {
        return preg_replace('/\r\n|[\r\x{85}\x{2028}\x{2029}]/u', "\n", $value) ?? $value;
    }
}
