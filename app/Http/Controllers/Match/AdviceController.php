<?php

declare(strict_types=1);

namespace App\Http\Controllers\Match;

use App\Actions\Match\Advise;
use App\Actions\Match\TryPlan;
use App\Http\Controllers\Controller;
use App\Models\Dataset;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

final class AdviceController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function show(Request $request, Dataset $dataset, Advise $advice): JsonResponse
    {
        return response()->json($advice($dataset, $this->masks($request, $dataset)));
    }

    /** What the draft would find on the rows of some keys. */
    public function trial(Request $request, Dataset $dataset, TryPlan $trial): JsonResponse
    {
        return response()->json($trial($dataset, $this->masks($request, $dataset)));
    }

    public function cancel(Dataset $dataset, Advise $advice): Response
    {
        $advice->cancel($dataset);

        return response()->noContent();
    }

    public function again(Request $request, Dataset $dataset, Advise $advice): JsonResponse
    {
        $advice->again($dataset);

        return response()->json($advice($dataset, $this->masks($request, $dataset)));
    }

    /** @return Sides<SideMask> */
    private function masks(Request $request, Dataset $dataset): Sides
    {
        $person = $this->person($request);

        return Sides::each(fn(Side $side): SideMask => $this->masks->ofSide($dataset, $side, $person));
    }
}
