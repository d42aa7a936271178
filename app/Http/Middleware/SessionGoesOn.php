<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Actions\Access\BeginSession;
use App\Models\SignInEntry;
use App\Models\User;
use Closure;
use Illuminate\Auth\AuthenticationException;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** A session ends when it is ended from elsewhere, when its person is locked, when nobody used it for long, and after a working day. */
final readonly class SessionGoesOn
{
    public const IDLE_MINUTES = 120;

    public const HOURS = 12;

    private const SECONDS_BETWEEN_LOOKS = 60;

    public function __construct(private StatefulGuard $guard) {}

    /** @param Closure(Request): Response $next */
    public function handle(Request $request, Closure $next): Response
    {
        $person = $request->user();
        $id = $request->hasSession() ? $request->session()->get(BeginSession::ENTRY) : null;
        // A session from before there were entries has none; a lock ends it all the same.
        if (! $person instanceof User || ! is_int($id) && $person->locked_at === null) {
            return $next($request);
        }
        $entry = is_int($id) ? SignInEntry::goingOn($person->id)->find($id) : null;
        $isOver =
            $entry === null ||
            $entry->seen_at->addMinutes(self::IDLE_MINUTES)->isPast() ||
            $entry->created_at->copy()->addHours(self::HOURS)->isPast();
        if ($isOver) {
            $entry?->update(['ended_at' => now()]);
            $this->guard->logout();
            $request->session()->invalidate();
            throw new AuthenticationException;
        }
        if ($entry->seen_at->addSeconds(self::SECONDS_BETWEEN_LOOKS)->isPast()) {
            $entry->update(['seen_at' => now()]);
        }

        return $next($request);
    }
}
