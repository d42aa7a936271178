<?php

declare(strict_types=1);

namespace App\Http\Controllers\Tally;

use App\Http\Controllers\Controller;
use App\Models\Migration;
use App\Queries\Tally\Rehearsals;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class RehearsalController extends Controller
{
    public function __invoke(Request $request, Migration $migration, Rehearsals $rehearsals): JsonResponse
    {
        $request->validate([
            'earlier' => ['sometimes', 'nullable', 'string', 'max:100'],
            'later' => ['sometimes', 'nullable', 'string', 'max:100'],
        ]);

        return response()->json(
            $rehearsals->against($migration, $request->string('earlier')->toString(), $request->string('later')->toString()),
        );
    }
}
