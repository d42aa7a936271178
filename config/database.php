<?php

declare(strict_types=1);

$server = [
    'driver' => 'pgsql',
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '5433'),
    'database' => env('DB_DATABASE', 'nine_tally'),
    'charset' => 'utf8',
    'prefix' => '',
    'search_path' => 'public',
    'sslmode' => env('DB_SSLMODE', 'disable'),
];

return [
    'default' => 'application',
    'connections' => [
        // What serves: may only select and insert in tables that are never overwritten.
        'application' => [
            ...$server,
            'username' => 'tally_app',
            'password' => env('DB_PASSWORD'),
            // A new connection for each request costs four times the query.
            'options' => PHP_SAPI === 'fpm-fcgi' ? [PDO::ATTR_PERSISTENT => true] : [],
        ],
        // What defines the tables: migrations only.
        'owner' => [...$server, 'username' => 'tally_owner', 'password' => env('DB_OWNER_PASSWORD')],
    ],
    // For the queue, where it is not kept in the database.
    'redis' => [
        'client' => 'phpredis',
        'options' => ['prefix' => env('REDIS_PREFIX', 'nine-tally:')],
        'default' => [
            'host' => env('REDIS_HOST', '127.0.0.1'),
            'port' => env('REDIS_PORT', '6379'),
            'password' => env('REDIS_PASSWORD'),
            'database' => 0,
        ],
    ],
    // "migrations" is a word of the product and a table of its own.
    'migrations' => ['table' => 'schema_changes', 'update_date_on_publish' => false],
];
