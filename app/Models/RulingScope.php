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
    case Undo = 'undo';
}
