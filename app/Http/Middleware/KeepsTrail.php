<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Actions\Access\Trail;
use App\Http\MigrationOfRequest;
use App\Models\TrailAct;
use App\Models\User;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What somebody was refused, and what somebody took away, goes into the trail by its address. */
final readonly class KeepsTrail
{
    /** In the defaults of a route: what it answers leaves the house. */
    public const TAKES_AWAY = 'takesAway';

    public function __construct(private Trail $trail) {}

    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        $response = $next($request);
        $act = match (true) {
            $response->getStatusCode() === Response::HTTP_FORBIDDEN => TrailAct::Refused,
            $request->route()?->defaults[self::TAKES_AWAY] ?? false => $response->isSuccessful() ? TrailAct::TookAway : null,
            default => null,
        };
        if ($act !== null) {
            $person = $request->user();
            $this->trail->note(
                $act,
                $person instanceof User ? $person : null,
                "{$request->method()} /{$request->path()}",
                MigrationOfRequest::find($request),
            );
        }

        return $response;
    }
}
