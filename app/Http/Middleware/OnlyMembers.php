<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Actions\Access\Trail;
use App\Http\MigrationOfRequest;
use App\Models\TrailAct;
use App\Models\User;
use Closure;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** For who has no role in a migration nothing of it exists; and that is so before anything that was sent is looked at. */
final readonly class OnlyMembers
{
    /** In the defaults of a route: administrators may use it in migrations that they have no role in. */
    public const ADMINISTERS = 'administers';

    public function __construct(private Trail $trail) {}

    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        $person = $request->user();
        $migration = MigrationOfRequest::find($request);
        if (! $person instanceof User || $migration === null || $person->roleIn($migration) !== null) {
            return $next($request);
        }
        if ($person->is_administrator && ($request->route()?->defaults[self::ADMINISTERS] ?? false)) {
            return $next($request);
        }
        $this->trail->note(TrailAct::Refused, $person, "{$request->method()} /{$request->path()}", $migration);
        throw new ModelNotFoundException;
    }
}
