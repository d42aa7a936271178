<?php

declare(strict_types=1);

return [
    'default' => 'file',
    'stores' => [
        'file' => ['driver' => 'file', 'path' => storage_path('framework/cache'), 'lock_path' => storage_path('framework/cache')],
        'array' => ['driver' => 'array'],
    ],
    'prefix' => 'nine-tally-',
];
