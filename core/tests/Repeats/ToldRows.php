<?php

declare(strict_types=1);

namespace NineTally\Tests\Repeats;

use NineTally\Core\Comparison\RowFinding;

/** What RepeatsTest and KeysThatMeetTest have in common. */
trait ToldRows
{
    private function told(RowFinding $row): string
    {
        return trim(
            sprintf(
                '%s %s %d%s',
                $row->class->value,
                $row->side->value ?? 'both',
                $row->record()->line ?? 0,
                $row->kept === null ? '' : " keeps {$row->kept->line}",
            ),
        );
    }
}
