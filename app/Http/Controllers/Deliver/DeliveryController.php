<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Actions\Deliver\ExplainClaim;
use App\Actions\Deliver\TakeDelivery;
use App\Http\Controllers\Controller;
use App\Http\Requests\Deliver\TakeDeliveryRequest;
use App\Http\Resources\DeliveryResource;
use App\Http\Resources\RefusedRecordResource;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Queries\Deliver\ReceiptView;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

final class DeliveryController extends Controller
{
    private const PAGE = 100;

    public function index(Request $request, Dataset $dataset): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $deliveries = $dataset->deliveries()->with(['user', 'parts', 'explanations.user'])->orderByDesc('id')->limit(self::PAGE)->get();

        return response()->json(['items' => DeliveryResource::collection($deliveries)->resolve($request)]);
    }

    public function store(TakeDeliveryRequest $request, Dataset $dataset, TakeDelivery $takeDelivery, ReceiptView $view): JsonResponse
    {
        $this->allow('work', $dataset->migration);
        $receipts = $takeDelivery($dataset, $request->side(), $request->receipts(), $request->terms());

        return response()->json(['items' => array_map($view(...), $receipts)], Response::HTTP_ACCEPTED);
    }

    public function explain(Request $request, Delivery $delivery, int $claim, ExplainClaim $explainClaim): JsonResponse
    {
        $this->allow('work', $delivery->dataset->migration);
        $request->validate(['explanation' => ['required', 'string', 'max:2000']]);
        $explainClaim($delivery, $claim, $request->string('explanation')->trim()->toString(), $this->person($request));

        return response()->json(DeliveryResource::make($delivery->refresh())->resolve($request));
    }

    public function refused(Request $request, Delivery $delivery): JsonResponse
    {
        $this->allow('view', $delivery->dataset->migration);
        $records = $delivery->refusedRecords()->where('number', '>', $request->integer('after'))->orderBy('number')->limit(self::PAGE)->get();

        return response()->json([
            'items' => RefusedRecordResource::collection($records)->resolve($request),
            'next' => $records->count() === self::PAGE ? $records->last()?->number : null,
            'total' => $delivery->refused_count,
        ]);
    }
}
