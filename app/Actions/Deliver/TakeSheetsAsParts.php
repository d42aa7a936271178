<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Storage\ChunkFolder;
use App\Adapters\Storage\Room;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Problems\Conflict;
use App\Problems\NoRoom;
use Illuminate\Database\Connection;
use Illuminate\Support\Str;
use NineTally\Core\Intake\Workbooks\WorkbookDetection;

/** Has the sheets of a workbook that have the columns of the one that is read wait beside it, as parts of one delivery. */
final readonly class TakeSheetsAsParts
{
    public function __construct(private ChunkFolder $chunks, private Connection $database, private Room $room) {}

    /**
     * @return non-empty-list<Receipt> the sheet that is read first, then the others in the order of the workbook
     *
     * @throws Conflict when no other sheet is alike, or the file waits no longer
     * @throws NoRoom
     */
    public function __invoke(Receipt $receipt): array
    {
        $format = $receipt->state === ReceiptState::Received ? $receipt->partFormat() : null;
        $waiting = $this->waiting($receipt);
        $alike = array_filter(
            $format->sheets ?? [],
            static fn(array $sheet): bool => isset($sheet['alike']) && ! in_array($sheet['name'], $waiting, true),
        );
        if ($format === null || $alike === []) {
            throw self::nothingToTake();
        }
        $path = $this->chunks->path($receipt);
        $this->room->mustHave(count($alike) * $receipt->bytes);
        $found = [];
        foreach ($alike as $sheet) {
            $found[(string) Str::uuid7()] = WorkbookDetection::inSheet(
                $path,
                $receipt->file_name,
                $format->with(['sheet' => $sheet['name']]),
            );
        }
        foreach (array_keys($found) as $id) {
            if (! @copy($path, $this->chunks->pathOf($id)) || ! chmod($this->chunks->pathOf($id), 0600)) {
                $this->forget(array_keys($found));
                throw NoRoom::writing();
            }
        }
        try {
            return $this->database->transaction(function () use ($receipt, $waiting, $format, $found): array {
                $parts = [Receipt::query()->lockForUpdate()->findOrFail($receipt->id)];
                // Of two presses one comes second.
                if ($parts[0]->state !== ReceiptState::Received || $this->waiting($receipt) !== $waiting) {
                    throw self::nothingToTake();
                }
                $workbook = $parts[0]->workbookName();
                $parts[0]->update(['file_name' => Receipt::nameOfSheet($workbook, $format->sheet)]);
                foreach ($found as $id => $part) {
                    $parts[] = Receipt::query()->create([
                        'id' => $id,
                        'dataset_id' => $receipt->dataset_id,
                        'side' => $receipt->side,
                        'file_name' => Receipt::nameOfSheet($workbook, $part->format->sheet),
                        'bytes' => $receipt->bytes,
                        'received_bytes' => $receipt->bytes,
                        'records_read' => 0,
                        'state' => ReceiptState::Received,
                        'user_id' => $receipt->user_id,
                        'packed_in' => $receipt->packed_in,
                        'digest' => $receipt->digest,
                        'format' => $part->format->toArray(),
                        'found' => [...$receipt->found ?? [], 'sheet' => 'its columns are those of the sheet before', ...$part->reasons],
                    ]);
                }

                return $parts;
            });
        } catch (\Throwable $problem) {
            $this->forget(array_keys($found));
            throw $problem;
        }
    }

    private static function nothingToTake(): Conflict
    {
        return Conflict::because(
            'no-alike-sheets',
            'No other sheet of this workbook has the same columns, all of them wait already, or its file waits no longer.',
        );
    }

    /** @return list<string> sheets of the same bytes that wait */
    private function waiting(Receipt $receipt): array
    {
        $same = Receipt::query()
            ->where(['dataset_id' => $receipt->dataset_id, 'side' => $receipt->side, 'digest' => $receipt->digest])
            ->where('state', ReceiptState::Received)
            ->orderBy('id')
            ->get();

        return array_values($same->map(static fn(Receipt $one): string => $one->partFormat()->sheet)->all());
    }

    /** @param list<string> $ids */
    private function forget(array $ids): void
    {
        foreach ($ids as $id) {
            @unlink($this->chunks->pathOf($id));
        }
    }
}
