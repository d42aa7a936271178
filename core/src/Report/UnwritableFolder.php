<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

use NineTally\Core\NineTallyException;

final class UnwritableFolder extends \RuntimeException implements NineTallyException
{
    public static function at(string $folder): self
    {
        return new self(
            sprintf(
                'The results cannot be written to "%s". Check that you may write there and that the disk is not full; nothing was left '.
                    'behind.',
                $folder,
            ),
        );
    }

    public function code(): string
    {
        return 'unwritable-folder';
    }
}
