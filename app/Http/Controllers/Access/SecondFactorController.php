<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\KeepSecondFactor;
use App\Actions\Access\TimeCode;
use App\Http\Controllers\Controller;
use App\Models\RecoveryCode;
use App\Models\SecondFactor;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** One's own second factor. */
final class SecondFactorController extends Controller
{
    public function __construct(private readonly KeepSecondFactor $secondFactor) {}

    public function show(Request $request): JsonResponse
    {
        $person = $this->person($request);

        return response()->json([
            'isOn' => SecondFactor::of($person) !== null,
            'recoveryCodes' => RecoveryCode::query()->where('user_id', $person->id)->count(),
        ]);
    }

    public function begin(Request $request): JsonResponse
    {
        $request->validate(['password' => ['required', 'string', 'max:1000']]);
        $person = $this->person($request);
        $secret = $this->secondFactor->begin($person, $request->string('password')->toString());

        return response()->json(
            ['secret' => TimeCode::written($secret), 'address' => TimeCode::address($secret, $person->email)],
            Response::HTTP_CREATED,
        );
    }

    public function confirm(Request $request): JsonResponse
    {
        $request->validate(['code' => ['required', 'string', 'max:40']]);

        return response()->json([
            'recoveryCodes' => $this->secondFactor->confirm($this->person($request), $request->string('code')->trim()->toString()),
        ]);
    }

    public function end(Request $request): Response
    {
        $request->validate(['password' => ['required', 'string', 'max:1000']]);
        $this->secondFactor->end($this->person($request), $request->string('password')->toString());

        return response()->noContent();
    }
}
