<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\BeginSession;
use App\Actions\Access\ChangePassword;
use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\PasswordRequest;
use App\Models\SignInEntry;
use App\Models\TrailAct;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** What is one's own: the password, and the sessions that go on. */
final class AccountController extends Controller
{
    public function sessions(Request $request): JsonResponse
    {
        $here = $request->session()->get(BeginSession::ENTRY);

        return response()->json([
            'items' => SignInEntry::goingOn($this->person($request)->id)
                ->orderByDesc('id')
                ->get()
                ->map(static fn(SignInEntry $entry): array => [
                    'id' => $entry->id,
                    'isThisOne' => $entry->id === $here,
                    'agent' => $entry->agent,
                    'address' => $entry->address,
                    'since' => $entry->created_at->toIso8601ZuluString(),
                    'seenAt' => $entry->seen_at->toIso8601ZuluString(),
                ])
                ->all(),
        ]);
    }

    public function end(Request $request, int $session, Trail $trail): Response
    {
        $person = $this->person($request);
        $entry = SignInEntry::goingOn($person->id)->findOrFail($session);
        $entry->update(['ended_at' => now()]);
        $trail->note(TrailAct::EndedSession, $person, "begun {$entry->created_at->toIso8601ZuluString()}");

        return response()->noContent();
    }

    public function password(PasswordRequest $request, ChangePassword $changePassword): Response
    {
        $here = $request->session()->get(BeginSession::ENTRY);
        $changePassword($this->person($request), $request->current(), $request->new(), is_int($here) ? $here : 0);

        return response()->noContent();
    }
}
