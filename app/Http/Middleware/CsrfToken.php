<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;

/** The token comes with the session's answer and goes back in a header. No cookie: its name would be shared between installations. */
final class CsrfToken extends ValidateCsrfToken
{
    protected $addHttpCookie = false;
}
