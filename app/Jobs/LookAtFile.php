<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Deliver\LookAtReceipt;
use App\Adapters\Storage\ChunkFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/**
 * Looks at a file that has come in whole: by a worker, for nobody knows what it is, and no page waits for the next one meanwhile. Run again
 * it finds it looked at.
 */
final class LookAtFile implements ShouldQueue
{
    use Queueable;

    public int $tries = 2;

    /** Seconds; the beginning of a file, or the unpacking of an archive, takes a few. */
    public int $timeout = 300;

    public function __construct(private readonly string $receiptId) {}

    public function handle(LookAtReceipt $lookAt): void
    {
        $receipt = Receipt::query()->where('state', ReceiptState::Receiving->value)->find($this->receiptId);
        if ($receipt === null) {
            return;
        }
        try {
            $lookAt($receipt);
        } catch (NineTallyException) {
            // The receipt says what is wrong with the file.
        }
    }

    public function failed(): void
    {
        $receipt = Receipt::query()->where('state', ReceiptState::Receiving->value)->find($this->receiptId);
        if ($receipt !== null) {
            app(ChunkFolder::class)->remove($receipt);
            $receipt->update([
                'state' => ReceiptState::Refused,
                'problem' =>
                    "\"{$receipt->file_name}\" could not be looked at to its end: it is damaged, or the disk is full. Check the file and ".
                        'deliver it again; if that does not help, ask whoever runs Nine Tally to look at the free disk space.',
            ]);
        }
    }
}
