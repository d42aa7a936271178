<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Intake\Delimited\DelimitedFormat;
use NineTally\Core\Intake\Delimited\LineEnds;
use NineTally\Core\Intake\Delimited\QuoteSign;
use NineTally\Core\Intake\FixedWidth\FixedWidthFormat;

/**
 * How a part is to be read: its kind, and what belongs to that kind.
 *
 * @phpstan-type FormatDocument array{kind?: string, delimiter?: string, lineEnds?: string, byteOrderMark?: bool, encoding?: string,
 *     header?: bool, skipAbove?: int, skipBelow?: int, starts?: list<int>, path?: string, paths?: list<string>, sheet?: string,
 *     headerRow?: int, sheets?: list<array{name: string, hidden: bool, alike?: true}>, skipLeft?: int, quote?: string}
 */
final readonly class PartFormat
{
    /**
     * @param  DelimitedFormat|null  $delimited  of delimited text
     * @param  FixedWidthFormat|null  $fixedWidth  of text of fixed width
     * @param  string  $path  to the records of JSON, names joined by dots, and of XML, joined by slashes
     * @param  list<string>  $paths  that may lead to the records, as far as was looked
     * @param  string  $sheet  of a workbook
     * @param  list<array{name: string, hidden: bool, alike?: true}>  $sheets  all that the workbook has, in its order, and which of them
     *     have the columns of the one that is read
     * @param  SheetPlace  $place  of the table in its sheet
     */
    private function __construct(
        public PartKind $kind,
        public ?DelimitedFormat $delimited = null,
        public ?FixedWidthFormat $fixedWidth = null,
        public string $path = '',
        public array $paths = [],
        public string $sheet = '',
        public array $sheets = [],
        public SheetPlace $place = new SheetPlace,
    ) {}

    public static function delimited(DelimitedFormat $format): self
    {
        return new self(PartKind::Delimited, $format);
    }

    public static function fixedWidth(FixedWidthFormat $format): self
    {
        return new self(PartKind::FixedWidth, fixedWidth: $format);
    }

    /** @param list<string> $paths */
    public static function json(bool $isLines, string $path = '', array $paths = []): self
    {
        return new self($isLines ? PartKind::JsonLines : PartKind::Json, path: $path, paths: $paths);
    }

    /** @param list<string> $paths */
    public static function xml(string $path, array $paths): self
    {
        return new self(PartKind::Xml, path: $path, paths: $paths);
    }

    /** @param list<array{name: string, hidden: bool, alike?: true}> $sheets */
    public static function workbook(PartKind $kind, string $sheet, array $sheets, SheetPlace $place = new SheetPlace): self
    {
        return new self($kind, sheet: $sheet, sheets: $sheets, place: $place);
    }

    /** @param FormatDocument $document as toArray() writes it; what was kept before there were kinds is delimited text */
    public static function fromArray(array $document): self
    {
        $kind = PartKind::from($document['kind'] ?? PartKind::Delimited->value);

        return match ($kind) {
            PartKind::Delimited => self::delimited(DelimitedFormat::fromArray($document)),
            PartKind::FixedWidth => self::fixedWidth(FixedWidthFormat::fromArray($document)),
            default => new self(
                $kind,
                null,
                null,
                $document['path'] ?? '',
                $document['paths'] ?? [],
                $document['sheet'] ?? '',
                $document['sheets'] ?? [],
                new SheetPlace($document['headerRow'] ?? 1, $document['skipBelow'] ?? 0, $document['skipLeft'] ?? 0),
            ),
        };
    }

    /** @return FormatDocument */
    public function toArray(): array
    {
        return match (true) {
            $this->delimited !== null => ['kind' => $this->kind->value, ...$this->delimited->toArray()],
            $this->fixedWidth !== null => ['kind' => $this->kind->value, ...$this->fixedWidth->toArray()],
            $this->kind->isWorkbook() => [
                'kind' => $this->kind->value,
                'sheet' => $this->sheet,
                'sheets' => $this->sheets,
                ...$this->place->toArray(),
            ],
            $this->path !== '' => ['kind' => $this->kind->value, 'path' => $this->path, 'paths' => $this->paths],
            default => ['kind' => $this->kind->value],
        };
    }

    /**
     * What a person corrected; what is not given stays as it was found.
     *
     * @param  array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int,
     *     starts?: list<int>, path?: string, sheet?: string, headerRow?: int, quote?: string}  $corrections
     */
    public function with(array $corrections): self
    {
        if ($this->delimited !== null) {
            return self::delimited($this->delimited->with(
                $corrections['delimiter'] ?? null,
                isset($corrections['lineEnds']) ? LineEnds::from($corrections['lineEnds']) : null,
                isset($corrections['encoding']) ? Encoding::from($corrections['encoding']) : null,
                $corrections['header'] ?? null,
                $corrections['skipAbove'] ?? null,
                $corrections['skipBelow'] ?? null,
                isset($corrections['quote']) ? QuoteSign::from($corrections['quote']) : null,
            ));
        }
        if ($this->fixedWidth !== null) {
            $isOtherEncoding = ($corrections['encoding'] ?? $this->fixedWidth->encoding->value) !== $this->fixedWidth->encoding->value;

            return self::fixedWidth(
                FixedWidthFormat::fromArray([
                    ...$this->fixedWidth->toArray(),
                    ...$corrections,
                    ...$isOtherEncoding ? ['byteOrderMark' => false] : [],
                ]),
            );
        }

        return new self(
            $this->kind,
            null,
            null,
            $corrections['path'] ?? $this->path,
            $this->paths,
            $corrections['sheet'] ?? $this->sheet,
            $this->sheets,
            new SheetPlace(
                $corrections['headerRow'] ?? $this->place->headerRow,
                $corrections['skipBelow'] ?? $this->place->skipBelow,
                // Another sheet has its table elsewhere.
                isset($corrections['sheet']) ? 0 : $this->place->skipLeft,
            ),
        );
    }
}
