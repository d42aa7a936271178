<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Storage\ChunkFolder;
use App\Jobs\ReceiveParts;
use App\Models\Dataset;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Problems\Conflict;
use Illuminate\Database\Connection;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;

/** Takes received files as one delivery: they are read whole by a worker, and entered when their records add up. */
final readonly class TakeDelivery
{
    public function __construct(private Connection $database, private DeliveryReader $reader, private ChunkFolder $chunks) {}

    /**
     * @param  non-empty-list<string>  $receiptIds  in the order of the parts
     * @return list<Receipt>
     *
     * @throws Conflict when one of them is not waiting to be taken
     * @throws \NineTally\Core\NineTallyException when their columns cannot be united
     */
    public function __invoke(Dataset $dataset, Side $side, array $receiptIds, DeliveryTerms $terms): array
    {
        $receipts = $this->receipts($dataset, $side, $receiptIds);
        // A second click finds them taken and does nothing more.
        if (array_filter($receipts, static fn(Receipt $receipt): bool => $receipt->state !== ReceiptState::Received) === []) {
            $stack = $this->reader->stackOf(
                array_map(
                    fn(Receipt $receipt): array => [
                        'path' => $this->chunks->path($receipt),
                        'name' => $receipt->file_name,
                        'format' => $receipt->partFormat(),
                        'label' => $terms->partLabels[$receipt->id] ?? $receipt->file_name,
                    ],
                    $receipts,
                ),
                $terms->partLabelColumn,
            );
            foreach (array_keys($terms->totals) as $column) {
                Columns::named($receipts[0]->file_name, $stack->columns)->positionOf((string) $column);
            }
            $taken = $this->database->transaction(
                static fn(): int => Receipt::query()
                    ->whereKey($receiptIds)
                    ->where('state', ReceiptState::Received->value)
                    ->update([
                        'state' => ReceiptState::Reading->value,
                        'taking' => json_encode(['receipts' => $receiptIds, 'terms' => $terms->toArray()], JSON_THROW_ON_ERROR),
                    ]),
            );
            if ($taken === count($receiptIds)) {
                ReceiveParts::dispatch($receiptIds, $terms);
            }
        }

        return array_map(static fn(Receipt $receipt): Receipt => $receipt->refresh(), $receipts);
    }

    /**
     * @param  list<string>  $receiptIds
     * @return non-empty-list<Receipt>
     */
    private function receipts(Dataset $dataset, Side $side, array $receiptIds): array
    {
        $receipts = [];
        foreach ($receiptIds as $id) {
            $receipt = $dataset->receipts()->where('side', $side->value)->whereKey($id)->first();
            $receipts[] =
                $receipt instanceof Receipt && $receipt->state !== ReceiptState::Receiving && $receipt->state !== ReceiptState::Refused
                    ? $receipt
                    : throw Conflict::because(
                        'not-received',
                        'One of the files has not been received whole. Wait for it, or take the others without it.',
                    );
        }

        return $receipts === [] ? throw Conflict::because('not-received', 'Name at least one file.') : $receipts;
    }
}
