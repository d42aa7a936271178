<?php

declare(strict_types=1);

namespace App\Models;

enum DrawState: string
{
    /** Both databases are asked which groups of rows differ. */
    case Asking = 'asking';
    /** Rows are being written down. */
    case Drawing = 'drawing';
    /** They are being read, to become deliveries. */
    case Reading = 'reading';
    /** Delivered, and others that it takes rows or numbers from come first. */
    case Waiting = 'waiting';
    case Tallying = 'tallying';
    case Done = 'done';
    case Failed = 'failed';
    /** Another one was going on. */
    case Refused = 'refused';

    /** @return list<string> */
    public static function going(): array
    {
        return [self::Asking->value, self::Drawing->value, self::Reading->value, self::Waiting->value, self::Tallying->value];
    }

    public function isDelivered(): bool
    {
        return ! in_array($this, [self::Asking, self::Drawing, self::Reading], true);
    }
}
