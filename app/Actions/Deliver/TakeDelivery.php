<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Jobs\ReceivePart;
use App\Models\Receipt;
use App\Models\ReceiptState;

/** Takes a received file as a delivery: it is read whole by a worker, and entered when its records add up. */
final readonly class TakeDelivery
{
    public function __invoke(Receipt $receipt): Receipt
    {
        // A second click finds the state changed and does nothing more.
        $taken = Receipt::query()->whereKey($receipt->id)->where('state', ReceiptState::Received->value)->update(['state' => ReceiptState::Reading->value]);
        if ($taken === 1) {
            ReceivePart::dispatch($receipt->id);
        }

        return $receipt->refresh();
    }
}
