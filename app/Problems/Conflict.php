<?php

declare(strict_types=1);

namespace App\Problems;

/** What a person asked for no longer fits what stands there. The message says what stands there now. */
final class Conflict extends \RuntimeException
{
    private function __construct(public readonly string $reason, string $message)
    {
        parent::__construct($message);
    }

    public static function because(string $reason, string $message): self
    {
        return new self($reason, $message);
    }
}
