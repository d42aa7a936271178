<?php

declare(strict_types=1);

namespace App\Rulings\FindingSet;

/** What stands first in a list of cells, other than in the order of the source: by what the cell's number differs by. */
enum FindingOrder: string
{
    case Largest = 'largest';
    case Up = 'up';
    case Down = 'down';
    case Relative = 'relative';

    /** Cells without a difference come last; of those that differ by as much, the first of the source is first. */
    public function sql(): string
    {
        $by = match ($this) {
            self::Largest => 'abs(f.difference) DESC',
            self::Up => 'f.difference DESC',
            self::Down => 'f.difference ASC',
            self::Relative => 'abs(f.relative_difference) DESC',
        };

        return "{$by} NULLS LAST, f.sequence";
    }
}
