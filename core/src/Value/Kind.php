<?php

declare(strict_types=1);

namespace NineTally\Core\Value;

/** How the cells of a column pair are read. A kind forgives nothing by itself. */
enum Kind: string
{
    case Text = 'text';
    case Number = 'number';
    case Date = 'date';
    case DateTime = 'date-time';
    case YesNo = 'yes-no';

    public function noun(): string
    {
        return match ($this) {
            self::Text => 'text',
            self::Number => 'a number',
            self::Date => 'a date',
            self::DateTime => 'a date with a time',
            self::YesNo => 'yes or no',
        };
    }
}
