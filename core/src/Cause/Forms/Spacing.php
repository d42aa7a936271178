<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** Spaces at the ends, runs of them, no-break spaces and tabs. Line ends are no spacing. */
final readonly class Spacing implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::Spacing;
    }

    public function canonical(string $value): string
    {
        $isPlain =
            ! str_contains($value, '  ') &&
            ! str_contains($value, "\t") &&
            trim($value, ' ') === $value &&
            preg_match('/[\x80-\xFF]/', $value) !== 1;

        // Zs is the Unicode category of separators that are spaces, U+00A0 and U+202F among them.
        return $isPlain ? $value : trim(preg_replace('/[\p{Zs}\t]+/u', ' ', $value) ?? $value, ' ');
    }
}
