<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\DeliveryReader;
use App\Adapters\PieceFolder;
use App\Http\Problems\Conflict;
use App\Models\Receipt;
use App\Models\ReceiptState;

/** Puts right what the reader found, before the delivery is taken. */
final readonly class CorrectFormat
{
    public function __construct(private PieceFolder $pieces, private DeliveryReader $reader) {}

    /** @param array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int, sheet?: string, headerRow?: int} $corrections */
    public function __invoke(Receipt $receipt, array $corrections): Receipt
    {
        if ($receipt->state !== ReceiptState::Received || $receipt->format === null) {
            throw Conflict::because('not-correctable', 'This file is no longer waiting to be taken. Deliver it again to read it another way.');
        }
        $corrected = $receipt->partFormat()->with($corrections);
        $this->reader->mustBeReadable($this->pieces->path($receipt), $receipt->file_name, $corrected);
        $receipt->update(['format' => $corrected->toArray()]);

        return $receipt;
    }
}
