<?php

declare(strict_types=1);

namespace NineTally\Core\Seal;

use NineTally\Core\NineTallyException;

/** A pack that could not be written. */
final class UnwritablePack extends \RuntimeException implements NineTallyException
{
    private function __construct(string $message)
    {
        parent::__construct($message);
    }

    public function code(): string
    {
        return 'unwritable-pack';
    }

    public static function at(string $path): self
    {
        return new self(
            sprintf('The pack "%s" could not be written: the disk has no room for it, or it may not be written to.', basename($path)),
        );
    }

    public static function lacks(string $path): self
    {
        return new self(sprintf('The file "%s" is not there, or cannot be read, so no pack was made.', basename($path)));
    }
}
