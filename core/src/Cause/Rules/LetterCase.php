<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ComparesCanonicalForms;
use NineTally\Core\Cause\FormRule;

/** Capitals against small letters, by full Unicode case folding without a locale (The Unicode Standard, section 3.13). */
final readonly class LetterCase implements FormRule
{
    use ComparesCanonicalForms;

    public function id(): CauseId
    {
        return CauseId::LetterCase;
    }

    public function canonical(string $value): string
    {
        return mb_convert_case($value, MB_CASE_FOLD, 'UTF-8');
    }
}
