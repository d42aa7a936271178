<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Session\Middleware\StartSession;

/** A program that comes with a token gets no session: it would be one more for each call, and the token alone says who it is. */
final class SessionOfPage extends StartSession
{
    public function handle($request, Closure $next): mixed
    {
        return $request->bearerToken() === null ? parent::handle($request, $next) : $next($request);
    }
}
