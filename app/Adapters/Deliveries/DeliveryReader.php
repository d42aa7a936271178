<?php

declare(strict_types=1);

namespace App\Adapters\Deliveries;

use App\Adapters\Storage\BlobStore;
use App\Adapters\Storage\ChunkFolder;
use App\Adapters\Storage\PartFile;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use NineTally\Core\Intake\LinesAround;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\NineTallyException;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Row\Row;

/** Opens what has been delivered for core to read. */
final readonly class DeliveryReader
{
    private ReaderCatalogue $catalogue;

    public function __construct(private BlobStore $blobs, private ChunkFolder $chunks, private int $rowLimit, private int $previewRows)
    {
        $this->catalogue = new ReaderCatalogue($rowLimit);
    }

    /** The parts of a delivery, stacked. */
    public function stack(Delivery $delivery): PartStack
    {
        $delivery->mustHaveContent();

        return $this->stackOf(array_values($delivery->parts->map(fn(DeliveryPart $part): array => [
            'path' => $this->blobs->path($part->digest),
            'name' => $part->file_name,
            'format' => $part->partFormat(),
            'label' => $part->part_label,
        ])->all()), $delivery->part_label_column);
    }

    /** @param list<array{path: string, name: string, format: PartFormat, label: string}> $parts */
    public function stackOf(array $parts, ?string $partLabelColumn): PartStack
    {
        $opened = array_map(
            fn(array $part): array => [
                'reader' => $this->openFile($part['path'], $part['name'], $part['format']),
                'label' => $part['label'],
            ],
            $parts,
        );

        return new PartStack($opened === [] ? throw new \LogicException('A delivery has at least one part.') : $opened, $partLabelColumn);
    }

    public function openPart(DeliveryPart $part): Reader
    {
        $part->delivery->mustHaveContent();

        return $this->openFile($this->blobs->path($part->digest), $part->file_name, $part->partFormat());
    }

    /** What stands around a line of a part, as its bytes were read. */
    public function around(DeliveryPart $part): LinesAround
    {
        return LinesAround::of($this->openPart($part), $this->blobs->path($part->digest), $part->partFormat(), $this->rowLimit);
    }

    /** A part wherever it is: among the chunks while it waits, else in the store. */
    public function open(PartFile $part): Reader
    {
        $waiting = $part->receipt === null ? null : $this->chunks->pathOf($part->receipt);

        return $this->openFile(
            $waiting !== null && is_file($waiting) ? $waiting : $this->blobs->path($part->digest),
            $part->name,
            PartFormat::fromArray($part->format),
        );
    }

    public function openFile(string $path, string $name, PartFormat $format): Reader
    {
        return $this->catalogue->openAs($path, $name, $format);
    }

    public function catalogue(): ReaderCatalogue
    {
        return $this->catalogue;
    }

    /**
     * Reads the beginning of a file that has not been taken yet, as the preview will.
     *
     * @throws NineTallyException when the beginning cannot be read
     */
    public function mustBeReadable(string $path, string $name, PartFormat $format): void
    {
        $reader = $this->openFile($path, $name, $format);
        $this->firstRows($reader);
    }

    /** @return list<list<string>> the cells of the first rows */
    public function firstRows(Reader $reader): array
    {
        $rows = [];
        foreach ($reader->records() as $record) {
            if ($record instanceof Row) {
                $rows[] = array_map(self::shortened(...), $record->cells);
            }
            if (count($rows) === $this->previewRows) {
                break;
            }
        }

        return $rows;
    }

    /** A preview is to be looked at: a cell of megabytes is cut, and says so by its last character. */
    public static function shortened(string $cell): string
    {
        return strlen($cell) <= 400 ? $cell : mb_strcut($cell, 0, 400).'…';
    }
}
