<?php

declare(strict_types=1);

namespace NineTally\Core\Command;

use NineTally\Core\NineTallyException;

final class WorkerFailure extends \RuntimeException implements NineTallyException
{
    /** In the words of the worker, which are meant for the person. */
    public static function saying(string $message): self
    {
        return new self($message);
    }

    public static function died(string $errors): self
    {
        return new self(
            'A worker process ended before its work was done'.
                (str_contains($errors, 'memory')
                    ? ': it ran out of memory. Allow more with --memory.'
                    : '. Run the tally again; nothing was written.'),
        );
    }

    public function code(): string
    {
        return 'worker-failed';
    }
}
