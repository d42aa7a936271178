<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/**
 * A cause of form: the value is the same, only its writing differs.
 *
 * It is defined by a canonical form, so that causes of form can be combined by taking one form after the other.
 */
interface FormRule extends CauseRule
{
    /** One writing for all values that differ by this form alone. Applied twice it changes nothing more. */
    public function canonical(string $value): string;
}
