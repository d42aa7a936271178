<?php

declare(strict_types=1);

namespace App\Http\Controllers\Review;

use App\Http\Controllers\Controller;
use App\Http\Requests\Review\RuleRequest;
use App\Http\Resources\RulingResource;
use App\Models\Ruling;
use App\Models\Tally;
use App\Queries\Review\ActOfTally;
use App\Queries\Review\ActsOfTally;
use App\Queries\Review\Masks;
use App\Rulings\RuleOn;
use App\Rulings\UndoRuling;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class RulingController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function index(Request $request, Tally $tally, ActsOfTally $acts): JsonResponse
    {
        $mask = $this->masks->forPerson($this->person($request), $tally);

        return response()->json([
            'items' => array_map(
                static fn(ActOfTally $of): array => RulingResource::make($of->act)->masked($mask)->resolve($request) + $of->toArray(),
                $acts->of($tally, $mask),
            ),
            'latest' => Ruling::newestOn($tally),
        ]);
    }

    public function store(RuleRequest $request, Tally $tally, RuleOn $ruleOn): JsonResponse
    {

        [$ruling, $mask] = [$request->ruling(), $this->masks->forPerson($this->person($request), $tally)];
        if ($ruling->filter !== null) {
            $mask->mustAllow($ruling->filter, $tally);
        }

        return RulingResource::make($ruleOn($tally, $ruling, $request->seenAct(), $this->person($request)))
            ->masked($mask)
            ->response()
            // Also for the second click of a double one, which finds the act there.
            ->setStatusCode(Response::HTTP_CREATED);
    }

    public function undo(Request $request, Ruling $ruling, UndoRuling $undoRuling): RulingResource
    {

        return RulingResource::make($undoRuling($ruling, $this->person($request)))->masked(
            $this->masks->forPerson($this->person($request), $ruling->tally),
        );
    }
}
