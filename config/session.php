<?php

declare(strict_types=1);

return [
    // Adapters\SessionFiles: a session that was ended stays ended.
    'driver' => 'session-files',
    'lifetime' => 8 * 60,
    'expire_on_close' => false,
    'encrypt' => true,
    'files' => storage_path('framework/sessions'),
    'lottery' => [2, 100],
    // Cookies know hosts, not ports: two installations on one machine would overwrite each other's session.
    'cookie' => 'nine_tally_'.substr(hash('sha256', (string) env('APP_KEY')), 0, 12),
    'path' => '/',
    'domain' => null,
    'secure' => false,
    'http_only' => true,
    'same_site' => 'strict',
    'partitioned' => false,
];
