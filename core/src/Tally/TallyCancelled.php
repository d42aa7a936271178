<?php

declare(strict_types=1);

namespace NineTally\Core\Tally;

use NineTally\Core\NineTallyException;

final class TallyCancelled extends \RuntimeException implements NineTallyException
{
    public static function byPerson(): self
    {
        return new self('The tally was cancelled. Nothing of it was kept.');
    }

    public function code(): string
    {
        return 'tally-cancelled';
    }
}
