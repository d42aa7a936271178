<?php

declare(strict_types=1);

return [
    // "redis" where there are many workers: Debian's redis-server and php8.2-redis. It may be emptied at any time, and nothing is lost.
    'default' => env('QUEUE_CONNECTION', 'database'),
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
        'redis' => [
            'driver' => 'redis',
            'connection' => 'default',
            'queue' => 'default',
            'retry_after' => 20,
            'block_for' => null,
            'after_commit' => true,
        ],
        'sync' => ['driver' => 'sync'],
    ],
    // The text of a failed job's exception may hold cell values: it is kept nowhere. What a person must know stands in the run.
    'failed' => ['driver' => 'null'],
];
