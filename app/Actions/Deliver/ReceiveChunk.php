<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\ChunkFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use NineTally\Core\Intake\UnreadableFile;

/** Adds a chunk at its offset. After the last one the file is looked at: what was found is shown before it is taken. */
final readonly class ReceiveChunk
{
    public function __construct(private ChunkFolder $chunks, private Connection $database, private LookAtReceipt $lookAt) {}

    /**
     * @throws Conflict when the chunk does not begin where the last one ended
     * @throws UnreadableFile when the whole file is of no kind that is read
     */
    public function __invoke(Receipt $receipt, int $offset, string $chunk): Receipt
    {
        $receipt = $this->database->transaction(function () use ($receipt, $offset, $chunk): Receipt {
            // Two tabs may send the same file: the lock gives their chunks an order.
            $receipt = Receipt::query()->lockForUpdate()->findOrFail($receipt->id);
            if ($receipt->state !== ReceiptState::Receiving || $offset !== $receipt->received_bytes) {
                throw Conflict::because(
                    'chunk-out-of-place',
                    "The next chunk begins at byte {$receipt->received_bytes}, not at {$offset}. Go on from there.",
                );
            }
            if ($offset + strlen($chunk) > $receipt->bytes) {
                throw Conflict::because(
                    'more-than-announced',
                    "More bytes came than the {$receipt->bytes} that were announced: the file has changed. Deliver it again.",
                );
            }
            $this->chunks->write($receipt, $offset, $chunk);
            $receipt->received_bytes += strlen($chunk);
            $receipt->save();

            return $receipt;
        });

        return $receipt->received_bytes === $receipt->bytes ? ($this->lookAt)($receipt) : $receipt;
    }
}
