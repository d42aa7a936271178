<?php

declare(strict_types=1);

namespace App\Models;

enum Decision: string
{
    case Expected = 'expected';
    case Defect = 'defect';
    case Ask = 'ask';
    case Open = 'open';

    /** What stands for a finding, as one byte. */
    public function code(): int
    {
        return match ($this) {
            self::Open => 0,
            self::Expected => 1,
            self::Defect => 2,
            self::Ask => 3,
        };
    }

    public static function ofCode(int $code): self
    {
        return [self::Open, self::Expected, self::Defect, self::Ask][$code];
    }
}
