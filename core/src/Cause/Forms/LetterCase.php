<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/**
 * Capitals against small letters, by simple Unicode case folding without a locale (CaseFolding.txt, statuses C and S): one letter stays one
 * letter.
 */
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


        return mb_convert_case($value, MB_CASE_FOLD_SIMPLE, 'UTF-8');
    }
}
