<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sign;

use App\Adapters\Storage\BlobStore;
use App\Http\Controllers\Controller;
use App\Http\Resources\WorkbookResource;
use App\Jobs\PrintReport;
use App\Jobs\WriteReportWorkbook;
use App\Models\Migration;
use App\Models\Report;
use App\Models\ReportOrder;
use App\Models\Tally;
use App\Models\Workbook;
use App\Queries\Sign\ReportPage;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Str;
use Symfony\Component\HttpFoundation\BinaryFileResponse;

final class ReportController extends Controller
{
    /** The very document that is printed. */
    public function page(Tally $tally, ReportPage $page): Response
    {
        return self::document($page->html($tally));
    }

    /** All datasets of a migration on one page. */
    public function ofMigration(Migration $migration, ReportPage $page): Response
    {
        return self::document($page->ofMigration($migration));
    }

    private static function document(string $html): Response
    {
        return response($html, headers: [
            'Content-Type' => 'text/html; charset=utf-8',
            'Content-Security-Policy' => ReportPage::POLICY,
            'X-Frame-Options' => 'SAMEORIGIN',
        ]);
    }

    public function order(Request $request, Tally $tally): JsonResponse
    {
        $order = ReportOrder::query()->create(['tally_id' => $tally->id, 'state' => 'queued', 'user_id' => $this->person($request)->id]);
        PrintReport::dispatch($order->id);

        return response()->json($this->orderView($order), Response::HTTP_ACCEPTED);
    }

    public function show(Request $request, ReportOrder $order): JsonResponse
    {
        if ($order->user_id !== $this->person($request)->id) {
            throw new ModelNotFoundException;
        }

        return response()->json($this->orderView($order));
    }

    public function pdf(Report $report, BlobStore $blobs): BinaryFileResponse
    {

        if (! $blobs->has($report->pdf_digest)) {
            $report->tally->mustHaveContent();
        }

        return response()->download($blobs->path($report->pdf_digest), $this->fileName($report->tally, "report-{$report->number}", 'pdf'), [
            'Content-Type' => 'application/pdf',
        ]);
    }

    /** Its tables, a sheet each. */
    public function askForWorkbook(Request $request, Tally $tally): JsonResponse
    {
        $workbook = Workbook::askFor($this->person($request), $tally->dataset_id, $this->fileName($tally, 'report', 'xlsx'));
        WriteReportWorkbook::dispatch($workbook->id, $tally->id);

        return response()->json(WorkbookResource::make($workbook)->resolve($request), Response::HTTP_ACCEPTED);
    }

    /** @return array{id: int, state: string, problem: string|null, reportId: int|null} */
    private function orderView(ReportOrder $order): array
    {
        return ['id' => $order->id, 'state' => $order->state, 'problem' => $order->problem, 'reportId' => $order->report_id];
    }

    private function fileName(Tally $tally, string $what, string $ending): string
    {
        return Str::slug($tally->dataset->name)."-tally-{$tally->number}-{$what}.{$ending}";
    }
}
