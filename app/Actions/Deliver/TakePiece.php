<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\PieceFolder;
use App\Http\Problems\Conflict;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Database\Connection;
use NineTally\Core\Intake\NotUsable;

/** Adds a piece at its offset. After the last one the file is looked at: what was found is shown before it is taken. */
final readonly class TakePiece
{
    public function __construct(private PieceFolder $pieces, private Connection $database, private LookAtReceipt $lookAt) {}

    /**
     * @throws Conflict when the piece does not begin where the last one ended
     * @throws NotUsable when the whole file is of no kind that is read
     */
    public function __invoke(Receipt $receipt, int $offset, string $piece): Receipt
    {
        $receipt = $this->database->transaction(function () use ($receipt, $offset, $piece): Receipt {
            // Two tabs may send the same file: the lock gives their pieces an order.
            $receipt = Receipt::query()->lockForUpdate()->findOrFail($receipt->id);
            if ($receipt->state !== ReceiptState::Receiving || $offset !== $receipt->received_bytes) {
                throw Conflict::because('piece-out-of-place', "The next piece begins at byte {$receipt->received_bytes}, not at {$offset}. Go on from there.");
            }
            if ($offset + strlen($piece) > $receipt->bytes) {
                throw Conflict::because('more-than-announced', "More bytes came than the {$receipt->bytes} that were announced: the file has changed. Deliver it again.");
            }
            $this->pieces->write($receipt, $offset, $piece);
            $receipt->received_bytes += strlen($piece);
            $receipt->save();

            return $receipt;
        });

        return $receipt->received_bytes === $receipt->bytes ? ($this->lookAt)($receipt) : $receipt;
    }
}
