<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Deliver\EnterDelivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Reads a received file whole and enters it as a delivery. Run again it finds its work done. */
final class ReceivePart implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly string $receiptId) {}

    public function handle(EnterDelivery $enterDelivery): void
    {
        $receipt = Receipt::query()->find($this->receiptId);
        if ($receipt !== null) {
            $enterDelivery($receipt);
        }
    }

    public function failed(): void
    {
        Receipt::query()->whereKey($this->receiptId)->where('state', ReceiptState::Reading->value)->update([
            'state' => ReceiptState::Refused->value,
            'problem' => 'The file could not be read to its end. Deliver it again; if that does not help, ask whoever runs Nine Tally to look at the free disk space.',
        ]);
    }
}
