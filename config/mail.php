<?php

declare(strict_types=1);

return [
    // "mailbox" is the stand-in that ships: letters are files in storage/mailbox. MAIL_MAILER=smtp and the settings below make real ones.
    'default' => env('MAIL_MAILER', 'mailbox'),
    'mailers' => [
        'mailbox' => ['transport' => 'mailbox'],
        'smtp' => [
            'transport' => 'smtp',
            'scheme' => env('MAIL_SCHEME'),
            'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => env('MAIL_PORT', 587),
            'username' => env('MAIL_USERNAME'),
            'password' => env('MAIL_PASSWORD'),
            'timeout' => 10,
        ],
        'array' => ['transport' => 'array'],
    ],
    'from' => ['address' => env('MAIL_FROM_ADDRESS', 'nine-tally@localhost'), 'name' => env('MAIL_FROM_NAME', 'Nine Tally')],
];
