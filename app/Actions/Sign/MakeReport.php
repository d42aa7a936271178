<?php

declare(strict_types=1);

namespace App\Actions\Sign;

use App\Adapters\Report\Printer;
use App\Adapters\Storage\BlobStore;
use App\Models\Report;
use App\Models\ReportOrder;
use App\Models\Tally;
use App\Queries\Sign\ReportPage;
use Illuminate\Database\Connection;

/** Makes the report of a tally as it stands: the HTML and its PDF are kept as they were, and a later ruling makes a new one. */
final readonly class MakeReport
{
    public function __construct(
        private ReportPage $page,
        private Printer $printer,
        private BlobStore $blobs,
        private Connection $database,
    ) {}

    public function __invoke(ReportOrder $order): Report
    {
        $order->update(['state' => 'printing']);
        $tally = $order->tally;
        $wasPurged = $tally->purged()->exists();
        $lastRuling = $tally->rulings()->max('id');
        $html = $this->page->html($tally);
        $made = Report::query()->where(['tally_id' => $tally->id, 'html_digest' => hash('sha256', $html)])->latest('id')->first();
        if ($made !== null && $this->blobs->has($made->pdf_digest)) {
            // Printed twice it would be the same pages in other bytes.
            $order->update(['state' => 'done', 'report_id' => $made->id]);

            return $made;
        }
        $pdf = $this->printer->print($html);

        return $this->database->transaction(function () use ($order, $tally, $wasPurged, $lastRuling, $html, $pdf): Report {
            $tally->mustNotBePurgedSince($wasPurged);
            Tally::query()->getQuery()->selectRaw('pg_advisory_xact_lock(2, ?)', [$tally->id % 2_147_483_647])->get();
            $report = Report::query()->create([
                'tally_id' => $tally->id,
                'number' => (Report::query()->where('tally_id', $tally->id)->orderByDesc('number')->first()->number ?? 0) + 1,
                'last_ruling_id' => $lastRuling,
                'html_digest' => $this->blobs->keep($html),
                'pdf_digest' => $this->blobs->keep($pdf),
                'user_id' => $order->user_id,
            ]);
            $order->update(['state' => 'done', 'report_id' => $report->id]);

            return $report;
        });
    }
}
