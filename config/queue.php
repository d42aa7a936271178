<?php

declare(strict_types=1);

return [
    'default' => 'database',
    'connections' => [
        'database' => [
            'driver' => 'database',
            'connection' => 'application',
            'table' => 'jobs',
            'queue' => 'default',
            // Seconds. Longer than any job may run, so that none is given to a second worker while the first lives; what a
            // dead worker held is found by its lease long before (App\Console\Commands\Watchdog).
            'retry_after' => 6 * 60 * 60,
            'after_commit' => true,
        ],
        'sync' => ['driver' => 'sync'],
    ],
    // The text of a failed job's exception may hold cell values: it is kept nowhere. What a person must know stands in the run.
    'failed' => ['driver' => 'null'],
];
