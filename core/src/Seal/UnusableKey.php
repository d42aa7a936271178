<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\NineTallyException;

/** A key that cannot seal, or be checked against. */
final class UnusableKey extends \InvalidArgumentException implements NineTallyException
{
    private function __construct(string $message)
    {
        parent::__construct($message);
    }

    public function code(): string
    {
        return 'unusable-key';
    }

    public static function because(string $why): self
    {
        return new self("This key cannot be used: {$why}.");
    }
}
