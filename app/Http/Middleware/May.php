<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Actions\Access\Trail;
use App\Http\MigrationOfRequest;
use App\Models\TrailAct;
use App\Models\User;
use App\Policies\Act;
use Closure;
use Illuminate\Auth\Access\AuthorizationException;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\Request;
use Illuminate\Routing\Route;
use Symfony\Component\HttpFoundation\Response;

/**
 * Each address is an act, and each act is for some: that is asked before anything that was sent is looked at. For who has no role in a
 * migration nothing of it exists.
 */
final readonly class May
{
    /** In the defaults of a route: the act that its address is. */
    public const ACT = 'act';

    public function __construct(private Trail $trail) {}

    /** What only asks is seeing; whatever else says itself what it is, or is not possible. */
    public static function actOf(Route $route): Act
    {
        $act = $route->defaults[self::ACT] ?? null;

        return match (true) {
            $act instanceof Act => $act,
            in_array('GET', $route->methods(), true) => Act::View,
            default => throw new \LogicException("The address {$route->uri()} does not say which act it is."),
        };
    }

    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        $person = $request->user();
        $route = $request->route();
        if (! $person instanceof User || ! $route instanceof Route) {
            throw new AuthenticationException;
        }
        $act = self::actOf($route);
        $migration = MigrationOfRequest::find($request);
        if ($act === Act::Administer && ! $person->is_administrator) {
            throw $migration === null || $person->roleIn($migration) !== null
                ? new AuthorizationException('People are kept by an administrator of this installation. Ask one.')
                : new ModelNotFoundException;
        }
        if ($migration !== null && $act !== Act::Administer && $person->roleIn($migration) === null) {
            $this->trail->note(TrailAct::Refused, $person, "{$request->method()} /{$request->path()}", $migration);
            throw new ModelNotFoundException;
        }
        if (! $person->reaches($act)) {
            throw new AuthorizationException(
                in_array($act, Act::ofTokens(), true)
                    ? 'This token was not made for this. Make one that has the scope "'.$act->value.'".'
                    : 'This is done by a person who is signed in, not by a token.',
            );
        }
        if ($migration !== null && $act !== Act::Administer && ! $act->isFor($person->roleIn($migration))) {
            throw new AuthorizationException;
        }

        return $next($request);
    }
}
