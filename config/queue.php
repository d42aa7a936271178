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
            // Seconds. A worker prolongs what it holds for as long as it lives (App\Adapters\Queue\Heartbeat), so this is how long a dead
            // one is waited for, whatever its job takes.
            'retry_after' => 20,
            'after_commit' => true,
        ],
        'sync' => ['driver' => 'sync'],
    ],
    // The text of a failed job's exception may hold cell values: it is kept nowhere. What a person must know stands in the run.
    'failed' => ['driver' => 'null'],
];
