<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\SignIn;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\SignInRequest;
use App\Http\Resources\PersonResource;
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

    public function store(SignInRequest $request, SignIn $signIn): PersonResource
    {
        $person = $signIn($request->email(), $request->password(), (string) $request->ip());
        // A new id, so that one planted before the sign-in is worth nothing.
        $request->session()->regenerate();

        return PersonResource::make($person);
    }

    public function destroy(Request $request, StatefulGuard $guard): Response
    {
        $guard->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return response()->noContent();
    }
}
