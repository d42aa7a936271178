<?php

declare(strict_types=1);

namespace App\Actions\Deliver;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\ChunkFolder;
use App\Models\Receipt;
use App\Models\ReceiptState;
use Illuminate\Support\Str;
use NineTally\Core\Intake\Archive;
use NineTally\Core\Intake\Trailer;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\NineTallyException;

/**
 * Looks at a file that has arrived whole: what was found is shown before it is taken. An archive of several files is kept, and each of
 * its files waits by itself.
 */
final readonly class LookAtReceipt
{
    /** As many as a delivery may have parts. */
    private const MOST_FILES = 500;

    public function __construct(private ChunkFolder $chunks, private DeliveryReader $reader, private BlobStore $blobs) {}

    /** @throws NineTallyException when it is of no kind that is read */
    public function __invoke(Receipt $receipt): Receipt
    {
        $path = $this->chunks->path($receipt);
        try {
            $archive =
                file_get_contents($path, false, null, 0, 4) === Archive::BEGINNING ? Archive::open($path, $receipt->file_name) : null;
            if ($archive !== null && $archive->workbook === null && count($archive->files) > 1) {
                return $this->unpack($receipt, $archive);
            }
            $found = $this->reader->catalogue()->find($path, $receipt->file_name);
            $this->reader->mustBeReadable($path, $receipt->file_name, $found->format);
            $tail = ($found->format->delimited ?? $found->format->fixedWidth) === null
                ? null
                : Trailer::tailOfPacked($path, $receipt->file_name);
            if ($tail !== null) {
                $this->chunks->keepTail($receipt, $tail);
            }
        } catch (NineTallyException $problem) {
            // Nothing is left behind of what cannot be used but the reason.
            $this->chunks->remove($receipt);
            $receipt->update(['state' => ReceiptState::Refused, 'problem' => $problem->getMessage()]);
            throw $problem;
        }
        $receipt->update([
            'state' => ReceiptState::Received,
            'found' => $found->reasons,
            'format' => $found->format->toArray(),
            'digest' => hash_file('sha256', $path),
        ]);

        return $receipt;
    }

    /** Whoever was at it before may have died over some of its files. */
    private function forgetUnfinished(Receipt $archive, string $digest): void
    {
        $unfinished = Receipt::query()
            ->where(['dataset_id' => $archive->dataset_id, 'side' => $archive->side])
            ->where('packed_in->digest', $digest)
            ->where('created_at', '>=', $archive->created_at)
            ->whereIn('state', [ReceiptState::Receiving->value, ReceiptState::Received->value, ReceiptState::Refused->value])
            ->get();
        foreach ($unfinished as $part) {
            $this->chunks->remove($part);
            $part->delete();
        }
    }

    /** @throws UnreadableFile */
    private function unpack(Receipt $receipt, Archive $archive): Receipt
    {
        if (count($archive->files) > self::MOST_FILES) {
            throw UnreadableFile::holdsSeveralFiles($receipt->file_name, count($archive->files));
        }
        $digest = (string) hash_file('sha256', $this->chunks->path($receipt));
        $this->forgetUnfinished($receipt, $digest);
        $into = [];
        $files = $archive->files;
        natcasesort($files);
        foreach ($files as $file) {
            $id = (string) Str::uuid7();
            $archive->unpack($file, $this->chunks->pathOf($id));
            $into[] = $id;
            $part = Receipt::query()->create([
                'id' => $id,
                'dataset_id' => $receipt->dataset_id,
                'side' => $receipt->side,
                'file_name' => Archive::shownName($file),
                'bytes' => $bytes = (int) filesize($this->chunks->pathOf($id)),
                'received_bytes' => $bytes,
                'records_read' => 0,
                'state' => ReceiptState::Receiving,
                'user_id' => $receipt->user_id,
                'packed_in' => ['name' => $receipt->file_name, 'digest' => $digest],
                // Pages of a feed can be asked for again.
                'query' => $receipt->query,
            ]);
            try {
                $this($part);
            } catch (NineTallyException) {
                // One file that is no table leaves the others waiting; its receipt says why.
                continue;
            }
        }
        $this->blobs->keepFile($this->chunks->path($receipt));
        $receipt->update(['state' => ReceiptState::Unpacked, 'digest' => $digest, 'unpacked_into' => $into]);

        return $receipt;
    }
}
