<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Sign\MakeReport;
use App\Models\ReportOrder;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Prints a report that was ordered. Run again it finds the order done. */
final class PrintReport implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 180;

    public function __construct(private readonly int $orderId) {}

    public function handle(MakeReport $makeReport): void
    {
        $order = ReportOrder::query()->find($this->orderId);
        if ($order !== null && $order->state !== 'done') {
            $makeReport($order);
        }
    }

    public function failed(): void
    {
        ReportOrder::query()
            ->whereKey($this->orderId)
            ->where('state', '!=', 'done')
            ->update([
                'state' => 'failed',
                'problem' => 'The report could not be printed. Order it again; if that fails, check that Chromium is installed.',
            ]);
    }
}
