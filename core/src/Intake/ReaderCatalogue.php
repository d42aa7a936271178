<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\Delimited\FormatDetection;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\TailDetection;
use NineTally\Core\Intake\FixedWidth\FixedWidthDetection;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;
use NineTally\Core\Intake\FixedWidth\FixedWidthReader;
use NineTally\Core\Intake\Objects\JsonReader;
use NineTally\Core\Intake\Objects\XmlReader;
use NineTally\Core\Intake\Workbooks\WorkbookDetection;
use NineTally\Core\Intake\Workbooks\WorkbookReader;

/** Finds the format of a file from its beginning and opens it with the reader for it. A new format is a kind, a reader and a line here. */
final readonly class ReaderCatalogue
{
    private const SAMPLE_BYTES = 262_144;

    public function __construct(private int $rowLimit = DelimitedReader::ROW_LIMIT) {}

    /**
     * Finds the format and reads by it.
     *
     * @param  string  $name  the file as the person knows it, for messages
     * @param  string|null  $delimiter  by name, instead of the one that is found
     *
     * @throws UnreadableFile
     */
    public function open(string $path, string $name, ?string $delimiter = null): Reader
    {
        $format = $this->find($path, $name, $delimiter !== null)->format;

        return $this->openAs($path, $name, $delimiter === null ? $format : $format->with(['delimiter' => $delimiter]));
    }

    /**
     * @param  bool  $isText  it is known to be delimited text
     *
     * @throws UnreadableFile
     */
    public function find(string $path, string $name, bool $isText = false): FoundPart
    {
        $stream = ByteStream::open($path, $name);
        $beginning = $stream->read(self::SAMPLE_BYTES);
        $stream->close();
        $records = $isText ? null : JsonReader::recognise($beginning) ?? XmlReader::recognise($beginning, $name);
        if ($records !== null) {
            return $records;
        }
        $workbook = str_starts_with($beginning, Archive::BEGINNING) ? Archive::open($path, $name)->workbook : null;
        if ($workbook !== null) {
            return WorkbookDetection::find($path, $name, $workbook);
        }
        $found = (new FormatDetection)->find($path, $name);
        $fixedWidth = $isText || $found->isDelimited ? null : (new FixedWidthDetection)->find($path, $name, $found->format);

        return $fixedWidth ?? $this->withoutTail($path, $name, $found);
    }

    /** Lines below the table are no rows of it: they are left out of it, and it is said which. */
    private function withoutTail(string $path, string $name, FoundFormat $found): FoundPart
    {
        try {
            $columns = (new DelimitedReader($path, $name, $found->format, $this->rowLimit))->columns->count();
            [$lines, $which] = TailDetection::below($path, $found->format, $columns);
        } catch (UnreadableFile) {
            // Whoever reads it is told what is wrong with it.
            [$lines, $which] = [0, ''];
        }

        return new FoundPart(
            PartFormat::delimited($found->format->with(skipBelow: $lines)),
            $lines === 0 ? $found->reasons : [...$found->reasons, 'skipBelow' => $which],
        );
    }

    /**
     * A text read as the other kind of table, as a person says it is.
     *
     * @throws UnreadableFile
     */
    public function findAs(PartKind $kind, string $path, string $name): FoundPart
    {
        $found = (new FormatDetection)->find($path, $name);

        return $kind === PartKind::FixedWidth
            ? (new FixedWidthDetection)->find($path, $name, $found->format) ??
                    new FoundPart(
                        PartFormat::fixedWidth(
                            new FixedWidthFormat([], $found->format->lineEnds, $found->format->hasByteOrderMark, $found->format->encoding),
                        ),
                        ['starts' => 'no place is blank in every line: say where the columns begin'],
                    )
            : new FoundPart(PartFormat::delimited($found->format), $found->reasons);
    }

    /** @throws UnreadableFile */
    public function openAs(string $path, string $name, PartFormat $format): Reader
    {
        return match ($format->kind) {
            PartKind::Delimited => new DelimitedReader(
                $path,
                $name,
                $format->delimited ?? new DelimitedFormat(',', LineEnds::Lf),
                $this->rowLimit,
            ),
            PartKind::FixedWidth => new FixedWidthReader($path, $name, $format->fixedWidth ?? new FixedWidthFormat([]), $this->rowLimit),
            PartKind::Json, PartKind::JsonLines => new JsonReader(
                $path,
                $name,
                $format->kind === PartKind::JsonLines,
                $this->rowLimit,
                $format->path,
            ),
            PartKind::Xml => new XmlReader($path, $name, $format->path, $this->rowLimit),
            PartKind::Xlsx, PartKind::Ods => new WorkbookReader($path, $name, $format),
        };
    }
}
