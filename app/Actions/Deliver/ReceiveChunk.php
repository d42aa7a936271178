<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\ChunkFolder;
use App\Jobs\LookAtFile;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Problems\Conflict;
use Illuminate\Database\Connection;

/** Adds a chunk at its offset. After the last one a worker looks at the file: what was found is shown before it is taken. */
final readonly class ReceiveChunk
{
    public function __construct(private ChunkFolder $chunks, private Connection $database) {}

    /** @throws Conflict when the chunk does not begin where the last one ended */
    public function __invoke(Receipt $receipt, int $offset, string $chunk): Receipt
    {
        $receipt = $this->write($receipt, $offset, $chunk);
        if ($receipt->isWhole()) {
            LookAtFile::dispatch($receipt->id);
            $receipt->refresh();
        }

        return $receipt;
    }

    /** @throws Conflict when the chunk does not begin where the last one ended */
    public function write(Receipt $receipt, int $offset, string $chunk): Receipt
    {
        return $this->database->transaction(function () use ($receipt, $offset, $chunk): Receipt {
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
    }
}
