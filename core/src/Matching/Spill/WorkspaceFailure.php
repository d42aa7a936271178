<?php

declare(strict_types=1);

namespace NineTally\Core\Matching\Spill;

use NineTally\Core\NineTallyException;

final class WorkspaceFailure extends \RuntimeException implements NineTallyException
{
    public static function writing(string $path): self
    {
        return new self(
            sprintf(
                'The working file "%s" could not be written: the disk may be full. Free some space and run the tally again; nothing was '.
                    'reported.',
                basename($path),
            ),
        );
    }

    public static function reading(string $path): self
    {
        return new self(
            sprintf('The working file "%s" ends too early or is gone. Run the tally again; nothing was reported.', basename($path)),
        );
    }

    public function code(): string
    {
        return 'workspace-failure';
    }
}
