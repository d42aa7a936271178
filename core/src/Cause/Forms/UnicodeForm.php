<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Forms;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\TextForm;

/** Composed against decomposed letters, width, compatibility forms (UAX #15, form NFKC). */
final readonly class UnicodeForm implements TextForm
{
    public function id(): CauseId
    {
        return CauseId::Unicode;
    }

    public function canonical(string $value): string
    {
        $normal = \Normalizer::normalize($value, \Normalizer::FORM_KC);

        return is_string($normal) ? $normal : $value;
    }
}
