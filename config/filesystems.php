<?php

declare(strict_types=1);

return [
    'default' => 'deliveries',
    'disks' => [
        // The framework's own, which would be served at an address of its own.
        'local' => ['driver' => 'local', 'root' => storage_path('blobs'), 'serve' => false],
        // Content by its SHA-256: what has been delivered, and the reports that were made.
        'deliveries' => [
            'driver' => 'local',
            'root' => storage_path('blobs'),
            'throw' => true,
            'permissions' => ['file' => ['private' => 0600], 'dir' => ['private' => 0700]],
            'visibility' => 'private',
        ],
    ],
];
