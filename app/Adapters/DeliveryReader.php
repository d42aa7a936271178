<?php

declare(strict_types=1);

namespace App\Adapters;

use App\Models\Delivery;
use NineTally\Core\Intake\DelimitedFormat;
use NineTally\Core\Intake\DelimitedReader;
use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Row;

/** Opens what has been delivered for core to read. */
final readonly class DeliveryReader
{
    public function __construct(private BlobStore $blobs, private int $rowLimit, private int $previewRows) {}

    public function open(Delivery $delivery): DelimitedReader
    {
        return $this->openFile($this->blobs->path($delivery->digest), $delivery->file_name, $delivery->delimitedFormat());
    }

    public function openFile(string $path, string $name, DelimitedFormat $format): DelimitedReader
    {
        return new DelimitedReader($path, $name, $format, $this->rowLimit);
    }

    /**
     * Reads the beginning of a file that has not been taken yet, as the preview will.
     *
     * @throws NineTallyException when the header names a column twice, or the beginning cannot be read
     */
    public function mustBeReadable(string $path, string $name, DelimitedFormat $format): void
    {
        $reader = $this->openFile($path, $name, $format);
        foreach (array_keys($reader->columns->repeated()) as $repeated) {
            $reader->columns->positionOf((string) $repeated);
        }
        $this->firstRows($reader);
    }

    /** @return list<list<string>> the cells of the first rows */
    public function firstRows(DelimitedReader $reader, ?int $count = null): array
    {
        $rows = [];
        foreach ($reader->records() as $record) {
            if ($record instanceof Row) {
                $rows[] = array_map(self::shortened(...), $record->cells);
            }
            if (count($rows) === ($count ?? $this->previewRows)) {
                break;
            }
        }

        return $rows;
    }

    /** A preview is to be looked at: a cell of megabytes is cut, and says so by its last character. */
    private static function shortened(string $cell): string
    {
        return strlen($cell) <= 400 ? $cell : mb_strcut($cell, 0, 400).'…';
    }
}
