<?php

declare(strict_types=1);

namespace App\Queries\Deliver;

use App\Adapters\Deliveries\DeliveryReader;
use App\Adapters\Storage\ChunkFolder;
use App\Models\DeliveryPart;
use App\Models\Receipt;
use App\Models\ReceiptState;
use App\Queries\Review\SideMask;
use Illuminate\Database\Eloquent\Builder;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\Trailer;

/** A file on its way: how far it is, and, when it waits to be taken, what was found and the first rows read that way. */
final readonly class ReceiptView
{
    private const MOST_TRAILER_CELLS = 40;

    private const LINES_SHOWN = 6;

    private const LONGEST_SHOWN_LINE = 65_536;

    public function __construct(private ChunkFolder $chunks, private DeliveryReader $reader) {}

    /** @return array<string, mixed> */
    public function __invoke(Receipt $receipt, SideMask $mask): array
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
            'packedIn' => $receipt->packed_in['name'] ?? null,
            'unpackedInto' => $receipt->unpacked_into,
            'preview' => $receipt->state === ReceiptState::Received ? $this->preview($receipt, $mask) : null,
        ];
    }

    /** Where the same bytes stand already: taken together they would double the totals, unless another sheet of them is read. */
    private function sameAs(Receipt $receipt): ?string
    {
        $sheet = $receipt->partFormat()->sheet;
        $waiting = Receipt::query()
            ->when($sheet !== '', static fn(Builder $of) => $of->where('format->sheet', $sheet))
            ->where('dataset_id', $receipt->dataset_id)
            ->where('side', $receipt->side)
            ->where('digest', $receipt->digest)
            ->where('state', ReceiptState::Received)
            ->whereKeyNot($receipt->id)
            ->first();
        if ($waiting !== null) {
            return "byte for byte the same as {$waiting->file_name}, which waits here too";
        }
        $delivered = DeliveryPart::query()
            ->when($sheet !== '', static fn(Builder $of) => $of->where('format->sheet', $sheet))
            ->where('digest', $receipt->digest)
            ->whereHas(
                'delivery',
                static fn(Builder $delivery) => $delivery->where('dataset_id', $receipt->dataset_id)->where('side', $receipt->side),
            )
            ->orderByDesc('delivery_id')
            ->first();

        return $delivered === null ? null : "byte for byte the same as {$delivered->file_name} of delivery {$delivered->delivery->number}";
    }

    /** @return array<string, mixed>|null */
    private function preview(Receipt $receipt, SideMask $mask): ?array
    {
        if ($receipt->format === null || $receipt->found === null) {
            return null;
        }
        $format = $receipt->partFormat();
        $reader = $this->reader->openFile($this->chunks->path($receipt), $receipt->file_name, $format);

        return [
            'format' => $format->toArray(),
            'reasons' => $receipt->found,
            'columns' => $reader->columns()->names,
            'rows' => array_map(
                static fn(array $cells): array => $mask->cells($reader->columns()->names, $cells),
                $this->reader->firstRows($reader),
            ),
            'sameAs' => $this->sameAs($receipt),
            'trailer' => $this->trailer($receipt, $reader, $mask),
            'beginning' =>
                $format->fixedWidth === null ? [] : array_map($mask->shape(...), $this->beginning($receipt, $format->fixedWidth)),
        ];
    }

    /** @return array{cells: list<string>, isLikely: bool, rows: int|null}|null */
    private function trailer(Receipt $receipt, Reader $reader, SideMask $mask): ?array
    {
        $trailer = Trailer::of($this->chunks->pathOfTail($receipt), $receipt->partFormat(), $reader->columns()->count());

        return $trailer === null || count($trailer->cells) > self::MOST_TRAILER_CELLS
            ? null
            : [
                'cells' => array_map(static fn(string $cell): string => $mask->text(DeliveryReader::shortened($cell)), $trailer->cells),
                'isLikely' => $trailer->isLikely,
                'rows' => $trailer->rows,
            ];
    }

    /** @return list<string> the first lines as they are, to set the edges of columns by */
    private function beginning(Receipt $receipt, FixedWidthFormat $format): array
    {
        $lines = [];
        foreach ($format->lines($this->chunks->path($receipt), $receipt->file_name, self::LONGEST_SHOWN_LINE)->read() as $number => $line) {
            if ($number > $format->skipAbove && $line !== null) {
                $lines[] = mb_scrub(mb_substr($line, 0, 400));
            }
            if (count($lines) === self::LINES_SHOWN) {
                break;
            }
        }

        return $lines;
    }
}
