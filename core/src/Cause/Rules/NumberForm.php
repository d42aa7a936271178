<?php

declare(strict_types=1);

namespace NineTally\Core\Cause\Rules;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\ComparesCanonicalForms;
use NineTally\Core\Cause\FormRule;
use NineTally\Core\Value\DecimalText;

/** One number in two writings: 1,234.50 and 1234.5, 1e3 and 1000, -0 and 0. */
final readonly class NumberForm implements FormRule
{
    use ComparesCanonicalForms;

    public function id(): CauseId
    {
        return CauseId::NumberForm;
    }

    public function canonical(string $value): string
    {
        return DecimalText::canonical($value) ?? $value;
    }
}
