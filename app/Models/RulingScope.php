<?php

declare(strict_types=1);

namespace App\Models;

/** What an act of ruling covers. */
enum RulingScope: string
{
    case Row = 'row';
    case Cell = 'cell';
    case Pattern = 'pattern';
    /** All rows of a class, as they stand in the tally. */
    case RowClass = 'class';
    /** Findings that were chosen one by one. */
    case Selection = 'selection';
    /** The findings of a filter, as it stood. */
    case Filter = 'filter';
    case Undo = 'undo';

    /** Whether the findings that it covers are kept one by one. */
    public function hasMembers(): bool
    {
        return $this === self::Selection || $this === self::Filter;
    }
}
