<?php

declare(strict_types=1);

namespace App\Http\Controllers\Deliver;

use App\Actions\Deliver\AnnouncePart;
use App\Actions\Deliver\AskForSnapshot;
use App\Actions\Deliver\CompareDeliveries;
use App\Actions\Deliver\CorrectFormat;
use App\Actions\Deliver\DiscardReceipt;
use App\Actions\Deliver\ReceiveChunk;
use App\Actions\Deliver\TakeSheetsAsParts;
use App\Adapters\Sources\Sources;
use App\Http\Controllers\Controller;
use App\Http\Requests\Deliver\AnnouncePartRequest;
use App\Http\Requests\Deliver\AskForSnapshotRequest;
use App\Http\Requests\Deliver\CorrectFormatRequest;
use App\Models\Dataset;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Queries\Deliver\ReceiptView;
use App\Queries\Review\Masks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use NineTally\Core\Row\Side;

final class ReceiptController extends Controller
{
    /** As many as a delivery may have parts. */
    private const MOST = 500;

    public function __construct(private readonly ReceiptView $view, private readonly Masks $masks) {}

    /** Files of a side that arrived whole and have not been taken. */
    public function index(Request $request, Dataset $dataset): JsonResponse
    {
        $request->validate(['side' => ['required', 'in:source,target']]);
        $waiting = $dataset
            ->receipts()
            ->where('side', $request->string('side')->toString())
            ->where('state', ReceiptState::Received->value)
            ->orderBy('created_at')
            ->orderBy('id')
            ->limit(self::MOST)
            ->get();

        return response()->json(['items' => $waiting->map(fn(Receipt $receipt): array => $this->shown($receipt, $request))->values()]);
    }

    public function store(AnnouncePartRequest $request, Dataset $dataset, AnnouncePart $announcePart): JsonResponse
    {
        $receipt = $announcePart($dataset, $request->side(), $request->fileName(), $request->bytes(), $this->person($request));

        return response()->json($this->shown($receipt, $request), Response::HTTP_CREATED);
    }

    public function query(AskForSnapshotRequest $request, Dataset $dataset, AskForSnapshot $askForSnapshot, Sources $sources): JsonResponse
    {
        $table = $request->table();
        $sql = $table === null
            ? $request->sql()
            : $sources->database($dataset->migration, $request->source())->statement(
                $table['name'],
                $table['columns'] ?? [],
                $table['where'] ?? '',
                $table['orderBy'] ?? [],
            );

        return response()->json(
            $this->shown(
                $askForSnapshot($dataset, $request->side(), $request->asked($sql), $this->person($request)),
                $request,
            ),
            Response::HTTP_ACCEPTED,
        );
    }

    public function waiting(Request $request, Dataset $dataset, CompareDeliveries $changes): JsonResponse
    {
        /** @var array{side: string, receipts: list<string>} $asked */
        $asked = $request->validate([
            'side' => ['required', 'in:source,target'],
            'receipts' => ['required', 'array', 'max:500'],
            'receipts.*' => ['uuid'],
        ]);

        return response()->json($changes->ofWaiting($dataset, Side::from($asked['side']), $asked['receipts']));
    }

    public function show(Request $request, Receipt $receipt): JsonResponse
    {

        return response()->json($this->shown($receipt, $request));
    }

    public function chunk(Request $request, Receipt $receipt, int $offset, ReceiveChunk $receiveChunk): JsonResponse
    {

        return response()->json($this->shown($receiveChunk($receipt, $offset, $request->getContent()), $request));
    }

    public function format(CorrectFormatRequest $request, Receipt $receipt, CorrectFormat $correctFormat): JsonResponse
    {

        return response()->json($this->shown($correctFormat($receipt, $request->corrections(), $request->kind()), $request));
    }

    public function sheets(Request $request, Receipt $receipt, TakeSheetsAsParts $takeSheets): JsonResponse
    {
        $parts = array_map(fn(Receipt $part): array => $this->shown($part, $request), $takeSheets($receipt));

        return response()->json(['items' => $parts], Response::HTTP_CREATED);
    }

    public function destroy(Receipt $receipt, DiscardReceipt $discard): Response
    {
        $discard($receipt);

        return response()->noContent();
    }

    /** @return array<string, mixed> */
    private function shown(Receipt $receipt, Request $request): array
    {
        return ($this->view)($receipt, $this->masks->ofSide($receipt->dataset, $receipt->side, $this->person($request)));
    }
}
