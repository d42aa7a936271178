<?php

declare(strict_types=1);

namespace App\Http\Controllers\Shape;

use App\Adapters\ShapedSides;
use App\Adapters\ShapeInputs;
use App\Http\Controllers\Controller;
use App\Http\Problems\Conflict;
use App\Http\Requests\Shape\TryShapeRequest;
use App\Jobs\ShapeDelivery;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Queries\Shape\LeftOutRows;
use App\Queries\Shape\ShapedRows;
use App\Queries\Shape\ShapeTrial;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\StreamedResponse;

final class ShapeController extends Controller
{
    /** What steps would do, on a sample: nothing is kept. */
    public function try(TryShapeRequest $request, Dataset $dataset, ShapeTrial $trial): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $rules = $request->sideRules();

        return response()->json($trial($this->delivery($dataset, $request->side()), $rules, ShapeInputs::now($dataset, $rules), $request->chosen()));
    }

    /** Runs the steps of the draft on every row, by a worker. */
    public function run(Request $request, Dataset $dataset): Response
    {
        $this->allow('work', $dataset->migration);
        ShapeDelivery::dispatch($this->delivery($dataset, $this->side($request))->id);

        return response()->noContent(Response::HTTP_ACCEPTED);
    }

    public function leftOut(Request $request, Dataset $dataset, LeftOutRows $rows): JsonResponse
    {
        $this->allow('view', $dataset->migration);
        $delivery = $this->delivery($dataset, $this->side($request));
        $rules = $dataset->draft()->first()?->rules($delivery->side) ?? new SideRules;

        return response()->json($rows($delivery, $rules, ShapeInputs::now($dataset, $rules), $request->string('step')->toString(), max(0, $request->integer('after'))));
    }

    public function take(Request $request, Dataset $dataset, ShapedSides $sides, ShapedRows $rows): StreamedResponse|BinaryFileResponse
    {
        $this->allow('view', $dataset->migration);
        $delivery = $this->delivery($dataset, $this->side($request));
        $rules = $dataset->draft()->first()?->rules($delivery->side) ?? new SideRules;
        $reader = $sides->reader($delivery, $rules, ShapeInputs::now($dataset, $rules));
        $as = $request->string('as')->toString();
        $name = sprintf('%s-%s-shaped.', preg_replace('/[^a-z0-9]+/', '-', mb_strtolower($dataset->name)), $delivery->side->value);
        if ($as === 'workbook') {
            return response()->download($rows->asWorkbook($reader, storage_path('work')), "{$name}xlsx")->deleteFileAfterSend();
        }
        $asLines = $as === 'json-lines';

        return response()->streamDownload(static function () use ($rows, $reader, $asLines): void {
            foreach ($asLines ? $rows->asJsonLines($reader) : $rows->asCsv($reader) as $bytes) {
                echo $bytes;
                flush();
            }
        }, $name.($asLines ? 'jsonl' : 'csv'), ['Content-Type' => $asLines ? 'application/jsonl' : 'text/csv; charset=UTF-8']);
    }

    private function side(Request $request): Side
    {
        return Side::tryFrom($request->string('side')->toString()) ?? throw Conflict::because('no-side', 'Say which side is meant: source or target.');
    }

    private function delivery(Dataset $dataset, Side $side): Delivery
    {
        return $dataset->latestDelivery($side)?->load('parts') ?? throw Conflict::because('no-delivery', "The {$side->value} side has no delivery yet.");
    }
}
