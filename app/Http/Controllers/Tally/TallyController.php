<?php

declare(strict_types=1);

namespace App\Http\Controllers\Tally;

use App\Http\Controllers\Controller;
use App\Http\Resources\TallyResource;
use App\Models\Dataset;
use App\Models\Tally;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class TallyController extends Controller
{
    public function index(Request $request, Dataset $dataset): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $tallies = $dataset->tallies()->with('standingCounts')->orderByDesc('number')->limit(100)->get();

        return response()->json(['items' => TallyResource::collection($tallies)->resolve($request)]);
    }

    public function show(Request $request, Tally $tally): JsonResponse
    {
        $this->allow('view', $tally->migration);
        $tally->load(['standingCounts', 'patterns']);

        return response()->json(TallyResource::make($tally)->withPatterns()->resolve($request));
    }
}
