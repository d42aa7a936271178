<?php

declare(strict_types=1);

namespace App\Http\Controllers\Access;

use App\Actions\Access\MakeToken;
use App\Actions\Access\Trail;
use App\Http\Controllers\Controller;
use App\Http\Requests\Access\TokenRequest;
use App\Models\Token;
use App\Models\TrailAct;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** One's own tokens for programs. */
final class TokenController extends Controller
{
    public function index(Request $request): JsonResponse
    {
        return response()->json([
            'items' => $this->person($request)
                ->tokens()
                ->orderByDesc('id')
                ->get()
                ->map(static fn(Token $token): array => [
                    'id' => $token->id,
                    'name' => $token->name,
                    'scopes' => $token->abilities,
                    'madeAt' => $token->created_at->toIso8601ZuluString(),
                    'usedAt' => $token->last_used_at?->toIso8601ZuluString(),
                    'endsAt' => $token->expires_at->toIso8601ZuluString(),
                ])
                ->all(),
        ]);
    }

    public function store(TokenRequest $request, MakeToken $makeToken): JsonResponse
    {
        $token = $makeToken(
            $this->person($request),
            $request->password(),
            $request->name(),
            $request->scopes(),
            $request->lastDay(),
        );

        return response()->json(['id' => $token->accessToken->getKey(), 'token' => $token->plainTextToken], Response::HTTP_CREATED);
    }

    public function destroy(Request $request, int $number, Trail $trail): Response
    {
        $person = $this->person($request);
        $token = $person->tokens()->findOrFail($number);
        $token->delete();
        $trail->note(TrailAct::EndedToken, $person, "\"{$token->name}\"");

        return response()->noContent();
    }
}
