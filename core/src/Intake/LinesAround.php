<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Row;

/** What a part holds around a line, as its bytes were read: by lines of a text file, by rows of anything else. */
final readonly class LinesAround
{
    /** Lines before and after, so that a record of several lines is seen whole, and what stands next to it. */
    private const AROUND = 3;

    private function __construct(private Reader $reader, private ?TextLines $lines) {}

    /** @param int $rowLimit bytes; of a longer line only its number is given */
    public static function of(Reader $reader, string $path, PartFormat $format, int $rowLimit): self
    {
        $name = $reader->name();
        $lines = match ($format->kind) {
            PartKind::Delimited => new TextLines(
                $path,
                $name,
                $rowLimit,
                $format->delimited->encoding ?? Encoding::Utf8,
                $format->delimited?->markBytes() ?? 0,
            ),
            PartKind::FixedWidth => $format->fixedWidth?->lines($path, $name, $rowLimit),
            PartKind::JsonLines => new TextLines($path, $name, $rowLimit),
            PartKind::Json, PartKind::Xml, PartKind::Xlsx, PartKind::Ods => null,
        };

        return new self($reader, $lines);
    }

    /**
     * @return list<array{line: int, text: string|null}> null: longer than the row limit; bytes that are no text are replaced
     *
     * @throws UnreadableFile
     */
    public function line(int $wanted): array
    {
        $around = [];
        foreach ($this->lines?->read() ?? $this->rows() as $line => $text) {
            if ($line > $wanted + self::AROUND) {
                break;
            }
            if ($line >= $wanted - self::AROUND) {
                $around[] = ['line' => $line, 'text' => $text === null ? null : mb_scrub($text, 'UTF-8')];
            }
        }

        return $around;
    }

    /**
     * The cells of the record that begins on a line, under the columns of its part.
     *
     * @return list<string>|null null where no row begins there
     *
     * @throws UnreadableFile
     */
    public function cells(int $line): ?array
    {
        foreach ($this->reader->records() as $record) {
            if ($record instanceof Row && $record->line >= $line) {
                return $record->line === $line ? $record->cells : null;
            }
        }

        return null;
    }

    /** @return \Generator<int, string> by their number, cells apart by tabs */
    private function rows(): \Generator
    {
        foreach ($this->reader->records() as $record) {
            if ($record instanceof Row) {
                yield $record->line => implode("\t", $record->cells);
            }
        }
    }
}
