<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\ChunkFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;

/** Gives up a file that has not become a delivery. */
final readonly class DiscardReceipt
{
    public function __construct(private ChunkFolder $chunks) {}

    public function __invoke(Receipt $receipt): void
    {
        if ($receipt->state !== ReceiptState::Delivered && $receipt->state !== ReceiptState::Reading) {
            $this->chunks->remove($receipt);
            $receipt->delete();
        }
    }
}
