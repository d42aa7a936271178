<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prepare;

use App\Adapters\Deliveries\PreparationInputs;
use App\Http\Controllers\Controller;
use App\Http\Requests\Prepare\TryPreparationRequest;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Problems\Conflict;
use App\Queries\Prepare\CrosswalkProposal;
use App\Queries\Prepare\LookUpProposals;
use App\Queries\Review\Masks;
use App\Queries\Review\SideMask;
use Illuminate\Http\JsonResponse;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;

/** What a step could be told, from the rows that come to it. Nothing is kept. */
final class ProposalController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    public function lookUps(TryPreparationRequest $request, Dataset $dataset, LookUpProposals $proposals): JsonResponse
    {
        return response()->json([
            'items' => $proposals->of($dataset, $this->delivery($request, $dataset), $this->rules($request, $dataset), $request->chosen()),
        ]);
    }

    public function crosswalk(TryPreparationRequest $request, Dataset $dataset, CrosswalkProposal $proposal): JsonResponse
    {
        [$delivery, $rules] = [$this->delivery($request, $dataset), $this->rules($request, $dataset)];
        $masks = Sides::each(
            fn(Side $side): SideMask => $side === $delivery->side
                ? $this->masks->through($delivery->dataset, $side, $rules->preparation, $this->person($request))
                : $this->masks->ofSide($dataset, $side, $this->person($request)),
        );

        return response()->json($proposal->of($dataset, $delivery, $rules->before($request->chosen()), $request->column(), $masks));
    }

    private function rules(TryPreparationRequest $request, Dataset $dataset): SideRules
    {
        return $request->preparedRules($dataset, $this->masks, $this->person($request));
    }

    private function delivery(TryPreparationRequest $request, Dataset $dataset): Delivery
    {
        $reference = $request->reference();
        $delivery = $reference === null
            ? $dataset->latestDelivery($request->side())
            : PreparationInputs::deliveryOf($dataset, $reference);

        return $delivery?->load('parts') ?? throw Conflict::because('no-delivery', 'There is no delivery yet to look at.');
    }
}
