<?php

declare(strict_types=1);

return [
    // OWASP's least for Argon2id: 19 MiB and two passes. Passwords that were hashed otherwise are hashed anew at the next sign-in.
    'driver' => 'argon2id',
    'argon' => ['memory' => (int) env('ARGON_MEMORY', 19456), 'threads' => 1, 'time' => (int) env('ARGON_TIME', 2), 'verify' => false],
    'rehash_on_login' => true,
];
