<?php

declare(strict_types=1);

namespace App\Http\Controllers\Prepare;

use App\Adapters\Deliveries\PreparationInputs;
use App\Adapters\Deliveries\PreparedSides;
use App\Http\Controllers\Controller;
use App\Http\Requests\Prepare\TryPreparationRequest;
use App\Http\Resources\WorkbookResource;
use App\Jobs\PrepareDelivery;
use App\Jobs\WritePreparedSide;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Workbook;
use App\Problems\Conflict;
use App\Queries\Prepare\LeftOutRows;
use App\Queries\Prepare\PreparationTrial;
use App\Queries\Prepare\PreparedRows;
use App\Queries\Review\Masks;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class PreparationController extends Controller
{
    public function __construct(private readonly Masks $masks) {}

    /** What steps would do, on a sample: nothing is kept. */
    public function try(TryPreparationRequest $request, Dataset $dataset, PreparationTrial $trial): JsonResponse
    {
        $rules = $request->preparedRules($dataset, $this->masks, $this->person($request));
        $reference = $request->reference();
        $delivery =
            $reference === null
                ? $this->delivery($dataset, $request->side())
                : $this->ofReference($dataset, $reference);

        $mask = $this->masks->through($delivery->dataset, $delivery->side, $rules->preparation, $this->person($request));

        return response()->json($trial($delivery, $rules, PreparationInputs::now($dataset, $rules), $request->chosen(), $mask));
    }

    /** Runs the steps of the draft on every row, by a worker. */
    public function run(Request $request, Dataset $dataset): Response
    {
        PrepareDelivery::dispatch($this->delivery($dataset, $this->side($request))->id);

        return response()->noContent(Response::HTTP_ACCEPTED);
    }

    public function leftOut(Request $request, Dataset $dataset, LeftOutRows $rows): JsonResponse
    {
        $delivery = $this->delivery($dataset, $this->side($request));
        $rules = $this->rules($dataset, $delivery->side);

        return response()->json(
            $rows(
                $delivery,
                $rules,
                PreparationInputs::now($dataset, $rules),
                $request->string('step')->toString(),
                max(0, $request->integer('after')),
                $this->masks->ofSide($dataset, $delivery->side, $this->person($request)),
            ),
        );
    }

    /** The prepared side as CSV or JSON Lines, written while it is sent. */
    public function take(Request $request, Dataset $dataset, PreparedSides $sides, PreparedRows $rows): StreamedResponse
    {
        $delivery = $this->delivery($dataset, $this->side($request));
        $rules = $this->rules($dataset, $delivery->side);
        $reader = $sides->reader($delivery, $rules, PreparationInputs::now($dataset, $rules));
        $asLines = $request->string('as')->toString() === 'json-lines';
        $mask = $this->masks->ofSide($dataset, $delivery->side, $this->person($request));

        return response()->streamDownload(
            static function () use ($rows, $reader, $asLines, $mask): void {
                foreach ($asLines ? $rows->asJsonLines($reader, $mask) : $rows->asCsv($reader, $mask) as $bytes) {
                    echo $bytes;
                    flush();
                }
            },
            $this->fileName($dataset, $delivery->side, $asLines ? 'jsonl' : 'csv'),
            ['Content-Type' => $asLines ? 'application/jsonl' : 'text/csv; charset=UTF-8'],
        );
    }

    /** Has the prepared side written as a workbook. */
    public function askForWorkbook(Request $request, Dataset $dataset): JsonResponse
    {
        $delivery = $this->delivery($dataset, $this->side($request));
        $rules = $this->rules($dataset, $delivery->side);
        $workbook = Workbook::askFor($this->person($request), $dataset->id, $this->fileName($dataset, $delivery->side, 'xlsx'));
        WritePreparedSide::dispatch(
            $workbook->id,
            $delivery->id,
            $rules,
            PreparationInputs::now($dataset, $rules),
            $this->person($request)->id,
        );

        return response()->json(WorkbookResource::make($workbook)->resolve($request), Response::HTTP_ACCEPTED);
    }

    private function ofReference(Dataset $dataset, string $name): Delivery
    {
        $delivery =
            PreparationInputs::deliveryOf($dataset, $name) ??
            throw Conflict::because(
                'no-reference',
                "There is no reference \"{$name}\". Add a dataset of this name to the migration and deliver it.",
            );
        return $delivery->load('parts');
    }

    private function rules(Dataset $dataset, Side $side): SideRules
    {
        return $dataset->draftNow()?->rules($side) ?? new SideRules;
    }

    private function fileName(Dataset $dataset, Side $side, string $ending): string
    {
        return Str::slug($dataset->name)."-{$side->value}-prepared.{$ending}";
    }

    private function side(Request $request): Side
    {
        return Side::tryFrom($request->string('side')->toString()) ??
            throw Conflict::because('no-side', 'Say which side is meant: source or target.');
    }

    private function delivery(Dataset $dataset, Side $side): Delivery
    {
        return $dataset->latestDelivery($side)?->load('parts') ??
            throw Conflict::because('no-delivery', "The {$side->value} side has no delivery yet.");
    }
}
