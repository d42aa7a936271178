<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Actions\Deliver\ExplainClaim;
use App\Actions\Deliver\TakeDelivery;
use App\Actions\Deliver\UseDelivery;
use App\Http\Controllers\Controller;
use App\Http\Requests\Deliver\TakeDeliveryRequest;
use App\Http\Resources\DeliveryResource;
use App\Http\Resources\RefusedRecordResource;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\RefusedRecord;
use App\Queries\Deliver\ReceiptView;
use App\Queries\Deliver\RefusedCsv;
use App\Queries\Review\Masks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use NineTally\Core\Row\Side;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class DeliveryController extends Controller
{
    private const PAGE = 100;

    public function __construct(private readonly Masks $masks) {}

    public function index(Request $request, Dataset $dataset): JsonResponse
    {
        $deliveries = $dataset->deliveries()->with(['user', 'parts', 'explanations.user'])->orderByDesc('id')->limit(self::PAGE)->get();

        return response()->json(['items' => DeliveryResource::collection($deliveries)->resolve($request)]);
    }

    public function store(TakeDeliveryRequest $request, Dataset $dataset, TakeDelivery $takeDelivery, ReceiptView $view): JsonResponse
    {
        $receipts = $takeDelivery($dataset, $request->side(), $request->receipts(), $request->terms());

        $mask = $this->masks->ofSide($dataset, $request->side(), $this->person($request));

        return response()->json(
            ['items' => array_map(static fn(Receipt $receipt): array => $view($receipt, $mask), $receipts)],
            Response::HTTP_ACCEPTED,
        );
    }

    public function explain(Request $request, Delivery $delivery, int $claim, ExplainClaim $explainClaim): JsonResponse
    {
        $request->validate(['explanation' => ['required', 'string', 'max:2000']]);
        $explainClaim($delivery, $claim, $request->string('explanation')->trim()->toString(), $this->person($request));

        return response()->json(DeliveryResource::make($delivery->refresh())->resolve($request));
    }

    /** The latest deliveries of other datasets of the migration, which can serve here too. */
    public function others(Request $request, Dataset $dataset): JsonResponse
    {
        $others = [];
        foreach ($dataset->migration->datasets()->whereKeyNot($dataset->id)->orderBy('name')->get() as $other) {
            foreach (Side::cases() as $side) {
                $delivery = $other->latestDelivery($side);
                if ($delivery !== null) {
                    $others[] = ['dataset' => $other->name, 'delivery' => DeliveryResource::make($delivery)->resolve($request)];
                }
            }
        }

        return response()->json(['items' => $others]);
    }

    public function use(Request $request, Dataset $dataset, UseDelivery $useDelivery): JsonResponse
    {
        /** @var array{delivery: int, side: string} $asked */
        $asked = $request->validate(['delivery' => ['required', 'integer'], 'side' => ['required', 'in:source,target']]);
        $used = $useDelivery(
            Delivery::query()->findOrFail($asked['delivery']),
            $dataset,
            Side::from($asked['side']),
            $this->person($request),
        );

        return response()->json(DeliveryResource::make($used->refresh())->resolve($request), Response::HTTP_CREATED);
    }

    public function refusedCsv(Request $request, Delivery $delivery, RefusedCsv $csv): StreamedResponse
    {
        $mask = $this->masks->ofSide($delivery->dataset, $delivery->side, $this->person($request));

        return response()->streamDownload(static function () use ($csv, $delivery, $mask): void {
            foreach ($csv($delivery, $mask) as $line) {
                echo $line;
            }
        }, "refused-{$delivery->side->value}-{$delivery->number}.csv", ['Content-Type' => 'text/csv; charset=UTF-8']);
    }

    public function refused(Request $request, Delivery $delivery): JsonResponse
    {
        // Nobody knows which columns stand in what could not be read.
        $mask = $this->masks->ofSide($delivery->dataset, $delivery->side, $this->person($request));
        $records = $delivery
            ->refusedRecords()
            ->where('number', '>', $request->integer('after'))
            ->orderBy('number')
            ->limit(self::PAGE)
            ->get();

        return response()->json([
            'items' => array_map(
                static fn(array $record): array => [...$record, 'raw' => $mask->text($record['raw'])],
                array_map(
                    static fn(RefusedRecord $record): array => RefusedRecordResource::make($record)->toArray($request),
                    array_values($records->all()),
                ),
            ),
            'next' => $records->count() === self::PAGE ? $records->last()?->number : null,
            'total' => $delivery->refused_count,
        ]);
    }
}
