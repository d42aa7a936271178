<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** Capitals against small letters, by full Unicode case folding without a locale (The Unicode Standard, section 3.13). */
final readonly class LetterCase implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::LetterCase;
    }

    public function canonical(string $value): string
    {
        if (preg_match('/[\x80-\xFF]/', $value) !== 1) {
            return strtolower($value);
        }

        // Folding takes ligatures apart as well, which is no matter of capitals: see UnicodeForm.
        return preg_match('/[\x{FB00}-\x{FB17}]/u', $value) !== 1
            ? mb_convert_case($value, MB_CASE_FOLD, 'UTF-8')
            : (string) preg_replace_callback('/[^\x{FB00}-\x{FB17}]+/u', static fn(array $found): string => mb_convert_case($found[0], MB_CASE_FOLD, 'UTF-8'), $value);
    }
}
