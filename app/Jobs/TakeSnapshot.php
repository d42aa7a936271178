<?php

declare(strict_types=1);

namespace App\Jobs;

use App\Actions\Deliver\LookAtReceipt;
use App\Adapters\Sources\Files\FileSource;
use App\Adapters\Sources\Files\NothingNew;
use App\Adapters\Sources\RowSource;
use App\Adapters\Sources\SourceDatabase;
use App\Adapters\Sources\SourceProblem;
use App\Adapters\Sources\Sources;
use App\Adapters\Storage\ChunkFolder;
use App\Models\DeliveryPart;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Queue\Queueable;
use NineTally\Core\NineTallyException;

/**
 * Writes down the rows of a query. Run again it begins anew, unless they are there.
 *
 * @phpstan-import-type Query from Receipt
 */
final class TakeSnapshot implements ShouldQueue
{
    use Queueable;

    public int $tries = 3;

    public int $timeout = 3600;

    public function __construct(private readonly string $receiptId) {}

    public function handle(Sources $sources, ChunkFolder $chunks, LookAtReceipt $lookAt): void
    {
        $receipt = Receipt::query()->find($this->receiptId);
        if ($receipt === null || $receipt->query === null || $receipt->state !== ReceiptState::Receiving) {
            return;
        }
        try {
            $query = ['at' => now()->toIso8601ZuluString('millisecond')] + $receipt->query;
            $receipt->update(['query' => $query]);
            $source = $sources->of($receipt->dataset->migration, $query['source']);
            if ($source instanceof FileSource) {
                $source = $source->knowing($this->delivered($receipt, $query['source']));
            }
            // Discarded meanwhile, it is gone: nobody waits for the rows any more.
            $snapshot = $source->snapshot(
                $this->statement($source, $query, $chunks->asked($receipt)),
                $chunks->path($receipt),
                static fn(int $rows, int $bytes): bool => Receipt::query()
                    ->whereKey($receipt->id)
                    ->update(['records_read' => $rows, 'received_bytes' => $bytes]) === 1,
            );
            if ($snapshot === null) {
                $chunks->remove($receipt);

                return;
            }
            $receipt->update([
                'bytes' => $snapshot->bytes,
                'received_bytes' => $snapshot->bytes,
                'file_name' => $snapshot->name ?? $receipt->file_name,
            ]);
            $lookAt($receipt);
        } catch (NineTallyException|SourceProblem|NothingNew $problem) {
            $chunks->remove($receipt);
            $receipt->update([
                'state' => ReceiptState::Refused,
                'problem' => $problem->getMessage(),
                ...$problem instanceof NothingNew ? ['query' => ['isNothingNew' => true] + ($receipt->query ?? [])] : [],
            ]);
        }
    }

    /** @return array<string, int> by name: when it was asked for, of files of this source that deliveries of the side have had */
    private function delivered(Receipt $receipt, string $source): array
    {
        $delivered = [];
        $parts = DeliveryPart::query()
            ->whereHas('delivery', static fn($of) => $of->where(['dataset_id' => $receipt->dataset_id, 'side' => $receipt->side->value]))
            ->where('query->source', $source)
            ->get(['file_name', 'query']);
        foreach ($parts as $part) {
            $at = (int) strtotime($part->query['at'] ?? '1970-01-01');
            $delivered[$part->file_name] = max($delivered[$part->file_name] ?? 0, $at);
        }

        return $delivered;
    }

    /** @param Query $query */
    private function statement(RowSource $source, array $query, ?string $ofGroups): string
    {
        if (isset($query['inPlace'])) {
            return $ofGroups ?? throw new SourceProblem('The groups that differ are no longer known. Draw it again.');
        }

        return $source instanceof SourceDatabase ? $source->bound($query['sql'], $query['values'] ?? []) : $query['sql'];
    }

    public function failed(): void
    {
        Receipt::query()
            ->whereKey($this->receiptId)
            ->where('state', ReceiptState::Receiving->value)
            ->update([
                'state' => ReceiptState::Refused->value,
                'problem' =>
                    'The query could not be read to its end. Ask again; if that does not help, ask whoever runs Nine Tally to look at '.
                        'the free disk space.',
            ]);
    }
}
