<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** What cannot be seen: zero-width characters, controls, soft hyphens, byte-order marks. Tabs and line ends are not among them. */
final readonly class Invisible implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::Invisible;
    }

    public function canonical(string $value): string
    {
        return preg_replace('/(?![\t\n\r\x{85}])[\p{Cc}\p{Cf}]+/u', '', $value) ?? $value;
    }
}
