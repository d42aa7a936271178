<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Actions\Access\Trail;
use App\Actions\Tally\RunOnDelivery;
use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Deliveries\DeliverySample;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\ChunkFolder;
use App\Jobs\ProfileDelivery;
use App\Models\Dataset;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Models\RefusedRecord;
use App\Models\TrailAct;
use App\Models\User;
use Illuminate\Database\Connection;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\HashTotals;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\Trailer;
use NineTally\Core\NineTallyException;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\RefusedRecord as Refused;
use NineTally\Core\Wording\Sentences;

/** Reads received files whole, keeps their bytes, and enters them as one delivery with its counts. */
final readonly class EnterDelivery
{
    /** Progress is written at most so often, in records. */
    private const RECORDS_BETWEEN_REPORTS = 50_000;

    /** A file of which everything is refused was read the wrong way: enough are listed to see why. */
    private const REFUSED_LISTED = 100_000;

    public function __construct(
        private ChunkFolder $chunks,
        private BlobStore $blobs,
        private DeliveryReader $reader,
        private Connection $database,
        private RunOnDelivery $runOnDelivery,
        private DeliverySample $sample,
        private Trail $trail,
        private ShownMoment $shownMoment,
    ) {}

    /** @param non-empty-list<Receipt> $receipts in the order of the parts */
    public function __invoke(array $receipts, DeliveryTerms $terms): ?Delivery
    {
        if (
            array_filter(
                $receipts,
                static fn(Receipt $receipt): bool => $receipt->state !== ReceiptState::Reading || $receipt->digest === null,
            ) !== []
        ) {
            return null;
        }
        $parts = [];
        foreach ($receipts as $receipt) {
            try {
                $path = $this->path($receipt);
                $reader = $this->reader->openFile($path, $receipt->file_name, $receipt->partFormat());
                $totals = new HashTotals($terms->summed($receipt->id));
                [$read, $refused] = $this->read($reader, $receipt, $receipts, $totals);
            } catch (NineTallyException $problem) {
                $this->refuse($receipts, $receipt, $problem);

                return null;
            }
            $trailer = isset($terms->trailers[$receipt->id])
                ? Trailer::of($path, $receipt->partFormat(), $reader->columns()->count())
                : null;
            $parts[] = new ReadPart(
                $receipt,
                $terms->partLabels[$receipt->id] ?? $receipt->file_name,
                $reader,
                $read,
                $refused,
                $totals,
                $trailer,
            );
        }
        $stack = new PartStack(
            array_map(static fn(ReadPart $part): array => ['reader' => $part->reader, 'label' => $part->label], $parts),
            $terms->partLabelColumn,
        );
        foreach ($receipts as $receipt) {
            if (is_file($this->chunks->path($receipt))) {
                $this->blobs->keepFile($this->chunks->path($receipt));
            }
            $this->chunks->remove($receipt);
        }

        $delivery = $this->enter($parts, $stack->columns, $terms);
        if ($delivery !== null) {
            // Before anybody opens a station that tries things on it.
            $this->sample->of($delivery);
            ProfileDelivery::dispatch($delivery->id);
            ($this->runOnDelivery)($delivery);
        }

        return $delivery;
    }

    /** A worker may have died after the bytes were kept: then they are there, under their digest. */
    private function path(Receipt $receipt): string
    {
        return is_file($this->chunks->path($receipt)) ? $this->chunks->path($receipt) : $this->blobs->path((string) $receipt->digest);
    }

    /**
     * One part that cannot be read keeps the delivery from being entered; the others wait to be taken again.
     *
     * @param  non-empty-list<Receipt>  $receipts
     */
    private function refuse(array $receipts, Receipt $broken, NineTallyException $problem): void
    {
        $this->chunks->remove($broken);
        $broken->update(['state' => ReceiptState::Refused, 'problem' => $problem->getMessage()]);
        foreach ($receipts as $receipt) {
            if ($receipt->id !== $broken->id) {
                $receipt->update(['state' => ReceiptState::Received]);
            }
        }
    }

    /**
     * @param  non-empty-list<Receipt>  $receipts  all that are read together: each gives a sign of life
     * @return array{int, list<Refused>}
     */
    private function read(Reader $reader, Receipt $receipt, array $receipts, HashTotals $totals): array
    {
        $read = 0;
        $refused = [];
        $places = array_flip($reader->columns()->names);
        foreach ($reader->records() as $record) {
            if ($record instanceof Refused) {
                $refused[] = $record;
                if (count($refused) > self::REFUSED_LISTED) {
                    throw TooManyRefused::in(
                        $receipt->file_name,
                        count($refused),
                        (new Sentences)->refusal($record->reason, $record->facts),
                    );
                }
            } else {
                $totals->add($record->cells, $places);
            }
            if (++$read % self::RECORDS_BETWEEN_REPORTS === 0) {
                $receipt->update(['records_read' => $read]);
                Receipt::query()->whereKey(array_column($receipts, 'id'))->update(['updated_at' => now()]);
            }
        }

        return [$read, $refused];
    }

    /**
     * @param  non-empty-list<ReadPart>  $parts
     * @param  list<string>  $columns  united
     */
    private function enter(array $parts, array $columns, DeliveryTerms $terms): ?Delivery
    {
        return $this->database->transaction(function () use ($parts, $columns, $terms): ?Delivery {
            $first = $parts[0]->receipt;
            Dataset::query()->lockForUpdate()->findOrFail($first->dataset_id);
            // A worker that was thought dead may have entered it meanwhile.
            if ($first->refresh()->state !== ReceiptState::Reading) {
                return null;
            }
            $sum = static fn(\Closure $figure): int => array_sum(array_map($figure, $parts));
            $refused = $sum(static fn(ReadPart $part): int => count($part->refused));
            $read = $sum(static fn(ReadPart $part): int => $part->read);
            $claims = (new DeclaredFigures($terms))->of($parts);
            $delivery = Delivery::query()->create([
                'dataset_id' => $first->dataset_id,
                'side' => $first->side,
                'number' => ($first->dataset->latestDelivery($first->side)->number ?? 0) + 1,
                'file_name' => count($parts) === 1 ? $first->file_name : sprintf('%s and %d more', $first->file_name, count($parts) - 1),
                'digest' =>
                    count($parts) === 1
                        ? $first->digest
                        : hash(
                            'sha256',
                            implode("\n", array_map(static fn(ReadPart $part): string => (string) $part->receipt->digest, $parts)),
                        ),
                'bytes' => $sum(static fn(ReadPart $part): int => $part->receipt->bytes),
                'format' => $first->partFormat()->toArray(),
                'columns' => $columns,
                'read_count' => $read,
                'refused_count' => $refused,
                'delivered_count' => $read - $refused,
                'part_label_column' => $terms->partLabelColumn,
                'as_of' => $this->shownMoment->of(array_map(static fn(ReadPart $part): Receipt => $part->receipt, $parts), $terms),
                'rows_claimed' => $terms->rowsClaimed,
                'claims' => $claims,
                'user_id' => $first->user_id,
                'delivered_at' => now(),
            ]);
            $about = sprintf(
                '%s: %s %d, %s, SHA-256 %s',
                $first->dataset->name,
                $first->side->value,
                $delivery->number,
                $delivery->file_name,
                $delivery->digest,
            );
            $this->trail->note(TrailAct::Delivered, User::query()->find($first->user_id), $about, $first->dataset->migration);
            $listed = 0;
            foreach ($parts as $position => $part) {
                $this->enterPart($delivery, $position + 1, $part, $listed);
                $listed += count($part->refused);
                $part->receipt->update(['state' => ReceiptState::Delivered, 'records_read' => $part->read, 'delivery_id' => $delivery->id]);
            }

            return $delivery;
        });
    }

    /** @param int $listed refused records of the parts before it */
    private function enterPart(Delivery $delivery, int $number, ReadPart $part, int $listed): void
    {
        DeliveryPart::query()->create([
            'delivery_id' => $delivery->id,
            'number' => $number,
            'file_name' => $part->receipt->file_name,
            'part_label' => $part->label,
            'digest' => $part->receipt->digest,
            'packed_in' => $part->receipt->packed_in,
            'query' => $part->receipt->query,
            'bytes' => $part->receipt->bytes,
            'format' => $part->receipt->partFormat()->toArray(),
            'columns' => $part->reader->columns()->names,
            'line_ends' => $part->reader instanceof DelimitedReader ? $part->reader->lineEnds->toArray() : null,
            'read_count' => $part->read,
            'refused_count' => count($part->refused),
            'delivered_count' => $part->delivered(),
        ]);
        foreach (array_chunk($part->refused, 1_000, true) as $some) {
            RefusedRecord::query()->insert(array_map(static fn(Refused $record, int $nth): array => [
                'delivery_id' => $delivery->id,
                'number' => $listed + $nth + 1,
                'part' => $number,
                'line' => $record->line,
                'reason' => $record->reason->value,
                'facts' => json_encode((object) $record->facts, JSON_THROW_ON_ERROR),
                'raw' => str_replace("\0", '\x00', $record->readableRaw()),
            ], $some, array_keys($some)));
        }
    }
}
