<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** For files that are written while they are sent, of any size: it ends when it is done, or when nobody receives it any more. */
final readonly class NoTimeLimit
{
    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        set_time_limit(0);

        return $next($request);
    }
}
