<?php

declare(strict_types=1);

namespace App\Adapters\Database;

use Illuminate\Database\Connection;

/** Work on many rows of which the planner expects one (written a moment ago, or told by a view), so that it would choose a nested loop. */
final readonly class ManyRows
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
