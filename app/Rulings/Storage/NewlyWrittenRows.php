<?php

declare(strict_types=1);

namespace App\Rulings\Storage;

use Illuminate\Database\Connection;

/** Work on many rows that were written a moment ago: not analysed yet, so the planner expects one row and would choose a nested loop. */
final readonly class NewlyWrittenRows
{
    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work  within a transaction, which is given up if it fails
     * @return Result
     */
    public static function withoutNestedLoops(Connection $database, \Closure $work): mixed
    {
        $database->statement("SELECT set_config('enable_nestloop', 'off', true)");
        $result = $work();
        $database->statement("SELECT set_config('enable_nestloop', 'on', true)");

        return $result;
    }
}
