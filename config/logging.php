<?php

declare(strict_types=1);

return [
    'default' => 'whatever-happens',
    'deprecations' => ['channel' => 'null', 'trace' => false],
    'channels' => [
        // On a full disk nothing can be written down, and that must not take the answer's place.
        'whatever-happens' => ['driver' => 'stack', 'channels' => ['single'], 'ignore_exceptions' => true],
        'single' => ['driver' => 'single', 'path' => storage_path('logs/application.log'), 'level' => 'info', 'permission' => 0600],
        'null' => ['driver' => 'monolog', 'handler' => Monolog\Handler\NullHandler::class],
        'emergency' => ['path' => storage_path('logs/application.log')],
    ],
];
