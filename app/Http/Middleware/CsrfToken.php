<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;

/** The token comes with the session's answer and goes back in a header. No cookie: its name would be shared between installations. */
final class CsrfToken extends ValidateCsrfToken
{
    protected $addHttpCookie = false;

    /** Who comes with a token has no session, and no page of others can make a browser send one. */
    protected function tokensMatch($request): bool
    {
        return $request->bearerToken() !== null || parent::tokensMatch($request);
    }
}
