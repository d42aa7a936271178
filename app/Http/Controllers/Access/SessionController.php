<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\BeginSession;
use App\Actions\Access\SignIn;
use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\SignInRequest;
use App\Http\Resources\PersonResource;
use App\Models\KnownDevice;
use App\Models\SignInEntry;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Contracts\Auth\StatefulGuard;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpFoundation\Cookie;

final class SessionController extends Controller
{
    private const DEVICE_MINUTES = 180 * 24 * 60;

    public function show(Request $request): JsonResponse
    {
        $person = $request->user();

        return response()->json([
            'person' => $person instanceof User ? PersonResource::make($person)->resolve($request) : null,
            'csrfToken' => $request->session()->token(),
            'needsFirstPerson' => ! User::query()->exists(),
        ]);
    }

    public function store(SignInRequest $request, SignIn $signIn, BeginSession $beginSession): JsonResponse
    {
        $device = $request->cookie(self::device());
        $device = is_string($device) ? $device : '';
        $person = $signIn($request->email(), $request->password(), $request->code(), (string) $request->ip(), $device);
        $beginSession($request, $person);

        return PersonResource::make($person)->response()->withCookie($this->known($person, $device));
    }

    /** The browser is known from here on. */
    private function known(User $person, #[\SensitiveParameter] string $device): Cookie
    {
        $token = KnownDevice::isOf($person, $device) ? $device : bin2hex(random_bytes(32));
        KnownDevice::query()->createOrFirst(['user_id' => $person->id, 'digest' => KnownDevice::digest($token)]);

        return cookie(self::device(), $token, self::DEVICE_MINUTES, sameSite: 'strict');
    }

    /** @return non-empty-string beside the session's own */
    private static function device(): string
    {
        return config()->string('session.cookie').'_device';
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
