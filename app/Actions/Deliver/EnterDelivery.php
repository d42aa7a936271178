<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\BlobStore;
use App\Adapters\DeliveryReader;
use App\Adapters\PieceFolder;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\RefusedRecord;
use Illuminate\Database\Connection;
use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\RefusedRecord as Refused;

/** Reads a received file whole, keeps its bytes, and enters the delivery with its counts. */
final readonly class EnterDelivery
{
    /** Progress is written at most so often, in records. */
    private const RECORDS_BETWEEN_REPORTS = 50_000;

    /** A file of which everything is refused was read the wrong way: enough are listed to see why. */
    private const REFUSED_LISTED = 100_000;

    public function __construct(private PieceFolder $pieces, private BlobStore $blobs, private DeliveryReader $reader, private Connection $database) {}

    public function __invoke(Receipt $receipt): ?Delivery
    {
        $format = $receipt->delimitedFormat();
        $digest = $receipt->digest;
        if ($receipt->state !== ReceiptState::Reading || $format === null || $digest === null) {
            return null;
        }
        try {
            // A worker may have died after the bytes were kept: then they are there, under their digest.
            $path = is_file($this->pieces->path($receipt)) ? $this->pieces->path($receipt) : $this->blobs->path($digest);
            $reader = $this->reader->openFile($path, $receipt->file_name, $format);
            [$read, $refused] = $this->read($reader, $receipt);
        } catch (NineTallyException $problem) {
            $this->pieces->remove($receipt);
            $receipt->update(['state' => ReceiptState::Refused, 'problem' => $problem->getMessage()]);

            return null;
        }
        if ($path === $this->pieces->path($receipt)) {
            $this->blobs->keepFile($path);
        }

        return $this->enter($receipt, $format, $reader, $read, $refused);
    }

    /** @return array{int, list<Refused>} */
    private function read(DelimitedReader $reader, Receipt $receipt): array
    {
        $read = $refusedCount = 0;
        $refused = [];
        foreach ($reader->records() as $record) {
            if ($record instanceof Refused) {
                $refusedCount++;
                $refused[] = $record;
                if ($refusedCount > self::REFUSED_LISTED) {
                    throw TooManyRefused::in($receipt->file_name, $refusedCount, $record->sentence);
                }
            }
            if (++$read % self::RECORDS_BETWEEN_REPORTS === 0) {
                $receipt->update(['records_read' => $read]);
            }
        }

        return [$read, $refused];
    }

    /** @param list<Refused> $refused */
    private function enter(Receipt $receipt, DelimitedFormat $format, DelimitedReader $reader, int $read, array $refused): ?Delivery
    {
        return $this->database->transaction(function () use ($receipt, $format, $reader, $read, $refused): ?Delivery {
            Dataset::query()->lockForUpdate()->findOrFail($receipt->dataset_id);
            // A worker that was thought dead may have entered it meanwhile.
            if ($receipt->refresh()->state !== ReceiptState::Reading) {
                return null;
            }
            $delivery = Delivery::query()->create([
                'dataset_id' => $receipt->dataset_id,
                'side' => $receipt->side,
                'number' => ($receipt->dataset->latestDelivery($receipt->side)->number ?? 0) + 1,
                'file_name' => $receipt->file_name,
                'digest' => $receipt->digest,
                'bytes' => $receipt->bytes,
                'format' => $format->toArray(),
                'columns' => $reader->columns->names,
                'read_count' => $read,
                'refused_count' => count($refused),
                'delivered_count' => $read - count($refused),
                'user_id' => $receipt->user_id,
                'delivered_at' => now(),
            ]);
            foreach (array_chunk($refused, 1_000) as $some) {
                RefusedRecord::query()->insert(array_map(static fn(Refused $record): array => [
                    'delivery_id' => $delivery->id,
                    // Of two records none begins on the same line.
                    'number' => $record->line,
                    'line' => $record->line,
                    'reason' => $record->reason->value,
                    'sentence' => $record->sentence,
                    'raw' => str_replace("\0", '\x00', $record->readableRaw()),
                ], $some));
            }
            $receipt->update(['state' => ReceiptState::Delivered, 'records_read' => $read, 'delivery_id' => $delivery->id]);

            return $delivery;
        });
    }
}
