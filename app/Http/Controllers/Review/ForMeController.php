<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Answers\WaitingSignatures;
use App\Http\Controllers\Controller;
use App\Queries\Review\Inbox;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** What waits for the person who asks: in their own migrations only, which the query sees to. */
final class ForMeController extends Controller
{
    public function __invoke(Request $request, Inbox $waiting, WaitingSignatures $signatures): JsonResponse
    {
        $person = $this->person($request);

        return response()->json([
            'asked' => $waiting->asked($person),
            'mentioned' => $waiting->mentioned($person),
            'toLookAt' => $waiting->toLookAt($person),
            'toSign' => $signatures->of($person),
        ]);
    }
}
