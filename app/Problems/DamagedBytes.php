<?php

declare(strict_types=1);

namespace App\Problems;

use NineTally\Core\NineTallyException;

/** What stands on the disk is not what was delivered. */
final class DamagedBytes extends \RuntimeException implements NineTallyException
{
    public static function of(string $file, string $digest): self
    {
        return new self(
            sprintf(
                'The bytes of "%s" are not those that were delivered (SHA-256 %s…): the disk has damaged or lost them. Nothing was '.
                    'tallied. Restore them from a backup, or deliver the file again.',
                $file,
                substr($digest, 0, 16),
            ),
        );
    }

    public function code(): string
    {
        return 'damaged-bytes';
    }
}
