<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prove;

use App\Actions\Prove\CheckDemands;
use App\Http\Controllers\Controller;
use App\Models\Tally;
use App\Queries\Prove\Population;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** What a tally looked at, and whether both sides are as the target demands. */
final class PopulationController extends Controller
{
    public function __invoke(Request $request, Tally $tally, Population $population, CheckDemands $demands, Masks $masks): JsonResponse
    {
        $tally->load(['dataset', 'planVersion', 'run', 'sourceDelivery', 'targetDelivery']);
        $person = $this->person($request);

        return response()->json([
            'sides' => $population->of($tally),
            'demands' => $demands($tally, Sides::each(fn(Side $side): SideMask => $masks->ofSide($tally->dataset, $side, $person))),
        ]);
    }
}
