<?php

declare(strict_types=1);

namespace NineTally\Core\Cause;

/** A cause of form that any text can have: defined by one writing for all values that differ by this form alone. */
interface TextForm
{
    public function id(): CauseId;

    /** Applied twice it changes nothing more. */
    public function canonical(string $value): string;
}
