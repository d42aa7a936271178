<?php

declare(strict_types=1);

namespace App\Adapters;

use Illuminate\Database\Connection;

/**
 * Work on many rows that were entered a moment ago. They are not in the statistics yet: the database would take half a million for one, and
 * compare all with all.
 */
final readonly class FreshRows
{
    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work  within a transaction, which is given up if it fails
     * @return Result
     */
    public static function among(Connection $database, \Closure $work): mixed
    {
        $database->statement("SELECT set_config('enable_nestloop', 'off', true)");
        $result = $work();
        $database->statement("SELECT set_config('enable_nestloop', 'on', true)");

        return $result;
    }
}
