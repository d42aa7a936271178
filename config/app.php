<?php

declare(strict_types=1);

return [
    'name' => 'Nine Tally',
    'env' => env('APP_ENV', 'production'),
    'debug' => false,
    'url' => env('APP_URL', 'http://127.0.0.1:8090'),
    'timezone' => 'UTC',
    'locale' => 'en',
    'fallback_locale' => 'en',
    'faker_locale' => 'en_GB',
    'cipher' => 'AES-256-CBC',
    'key' => env('APP_KEY'),
    // Keys that what is kept encrypted is still read by (nine-tally:rotate-key).
    'previous_keys' => array_values(array_filter(explode(',', (string) env('APP_PREVIOUS_KEYS', '')))),
    'maintenance' => ['driver' => 'file'],
];
