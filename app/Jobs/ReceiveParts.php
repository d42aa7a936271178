<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Deliver\DeliveryTerms;
use App\Actions\Deliver\EnterDelivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;

/** Reads received files whole and enters them as one delivery. Run again it finds its work done. */
final class ReceiveParts implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    /** @param non-empty-list<string> $receiptIds */
    public function __construct(private readonly array $receiptIds, private readonly DeliveryTerms $terms) {}

    public function handle(EnterDelivery $enterDelivery): void
    {
        $receipts = [];
        foreach ($this->receiptIds as $id) {
            $receipts[] = Receipt::query()->findOrFail($id);
        }
        $enterDelivery($receipts, $this->terms);
    }

    public function failed(): void
    {
        Receipt::query()
            ->whereKey($this->receiptIds)
            ->where('state', ReceiptState::Reading->value)
            ->update([
                'state' => ReceiptState::Refused->value,
                'problem' =>
                    'The file could not be read to its end. Deliver it again; if that does not help, ask whoever runs Nine Tally to look '.
                        'at the free disk space.',
            ]);
    }
}
