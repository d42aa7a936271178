<?php

declare(strict_types=1);

namespace App\Queries\Deliver;

use App\Adapters\DeliveryReader;
use App\Adapters\PieceFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;

/** A file on its way: how far it is, and, when it waits to be taken, what was found and the first rows read that way. */
final readonly class ReceiptView
{
    public function __construct(private PieceFolder $pieces, private DeliveryReader $reader) {}

    /** @return array<string, mixed> */
    public function __invoke(Receipt $receipt): array
    {
        return [
            'id' => $receipt->id,
            'side' => $receipt->side->value,
            'fileName' => $receipt->file_name,
            'bytes' => $receipt->bytes,
            'receivedBytes' => $receipt->received_bytes,
            'state' => $receipt->state->value,
            'problem' => $receipt->problem,
            'digest' => $receipt->digest,
            'recordsRead' => $receipt->records_read,
            'deliveryId' => $receipt->delivery_id,
            'preview' => $receipt->state === ReceiptState::Received ? $this->preview($receipt) : null,
        ];
    }

    /** @return array<string, mixed>|null */
    private function preview(Receipt $receipt): ?array
    {
        $format = $receipt->delimitedFormat();
        if ($format === null || $receipt->found === null) {
            return null;
        }
        $reader = $this->reader->openFile($this->pieces->path($receipt), $receipt->file_name, $format);

        return [
            'format' => $format->toArray(),
            'reasons' => $receipt->found,
            'columns' => $reader->columns->names,
            'rows' => $this->reader->firstRows($reader),
        ];
    }
}
