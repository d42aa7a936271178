<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\MigrationOfRequest;
use App\Models\SigningTerms;
use App\Models\User;
use Closure;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** Reports and packs are for whoever signs, and for whom the migration says. */
final readonly class SeesReports
{
    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        [$person, $migration] = [$request->user(), MigrationOfRequest::find($request)];
        if (
            $person instanceof User &&
            $migration !== null &&
            ! SigningTerms::letsSeeReports($migration, $person->roleIn($migration))
        ) {
            throw new AuthorizationException(
                'Reports and packs of this migration are not for your role. A test manager can let them be, on the board.',
            );
        }

        return $next($request);
    }
}
