<?php

declare(strict_types=1);

// Tokens alone: who uses the page has a session, which is looked at before a token is.
return [
    'guard' => [],
    'routes' => false,
    'expiration' => null,
    // So that a token that was left somewhere is known for what it is.
    'token_prefix' => 'nine-tally-',
];
