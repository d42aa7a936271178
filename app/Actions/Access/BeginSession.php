<?php

declare(strict_types=1);

namespace App\Actions\Access;

use App\Models\SignInEntry;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\Request;

/** Signs somebody in who has shown who they are: with a new id of the session, so that one planted before is worth nothing. */
final readonly class BeginSession
{
    /** In the session: its entry in the list of sign-ins. */
    public const ENTRY = 'sign-in';

    private const LONGEST_AGENT = 200;

    public function __construct(private StatefulGuard $guard, private Trail $trail) {}

    public function __invoke(Request $request, User $person): void
    {
        $this->guard->login($person);
        $request->session()->regenerate();
        $entry = SignInEntry::query()->create([
            'user_id' => $person->id,
            'address' => (string) $request->ip(),
            'agent' => mb_substr((string) $request->userAgent(), 0, self::LONGEST_AGENT),
            'seen_at' => now(),
        ]);
        $request->session()->put(self::ENTRY, $entry->id);
        $this->trail->note(TrailAct::SignedIn, $person);
    }
}
