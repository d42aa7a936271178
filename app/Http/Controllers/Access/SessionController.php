<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\BeginSession;
use App\Actions\Access\SignIn;
use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\SignInRequest;
use App\Http\Resources\PersonResource;
use App\Models\SignInEntry;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class SessionController extends Controller
{
    public function show(Request $request): JsonResponse
    {
        $person = $request->user();

        return response()->json([
            'person' => $person instanceof User ? PersonResource::make($person)->resolve($request) : null,
            'csrfToken' => $request->session()->token(),
            'needsFirstPerson' => ! User::query()->exists(),
        ]);
    }

    public function store(SignInRequest $request, SignIn $signIn, BeginSession $beginSession): PersonResource
    {
        $person = $signIn($request->email(), $request->password(), (string) $request->ip());
        $beginSession($request, $person);

        return PersonResource::make($person);
    }

    public function destroy(Request $request, StatefulGuard $guard, Trail $trail): Response
    {
        $person = $this->person($request);
        SignInEntry::goingOn($person->id)->whereKey($request->session()->get(BeginSession::ENTRY))->update(['ended_at' => now()]);
        $trail->note(TrailAct::SignedOut, $person);
        $guard->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }
}
