<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\NineTallyException;

/** A time stamp that says nothing of a seal. */
final class UnusableTimeStamp extends \RuntimeException implements NineTallyException
{
    /** @param bool $isUnknown whether nobody can tell, for a tool is not there */
    private function __construct(string $message, public readonly bool $isUnknown = false)
    {
        parent::__construct($message);
    }

    public function code(): string
    {
        return 'unusable-time-stamp';
    }

    public static function because(string $why): self
    {
        return new self("The time stamp cannot be used: {$why}.");
    }

    public static function withoutTool(): self
    {
        return new self('Time stamps are asked for and read with openssl, and it is not there. Have it installed.', isUnknown: true);
    }
}
