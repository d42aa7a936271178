<?php

declare(strict_types=1);

namespace NineTally\Core\Row;

enum Side: string
{
    case Source = 'source';
    case Target = 'target';

    public function other(): self
    {
        return $this === self::Source ? self::Target : self::Source;
    }
}
