<?php

declare(strict_types=1);

namespace App\Adapters\Runs;

/** Another worker has taken this run over: whatever this one still does must not be seen. */
final class LeaseLost extends \RuntimeException
{
    public static function ofRun(int $run): self
    {
        return new self("Run {$run} is held by another worker.");
    }
}
