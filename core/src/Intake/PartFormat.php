<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

/**
 * How a part is to be read: its kind, and what belongs to that kind.
 *
 * @phpstan-type FormatDocument array{kind?: string, delimiter?: string, lineEnds?: string, byteOrderMark?: bool, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int, sheet?: string, headerRow?: int, sheets?: list<array{name: string, hidden: bool}>}
 */
final readonly class PartFormat
{
    /**
     * @param  DelimitedFormat|null  $delimited  of delimited text
     * @param  string  $sheet  of a workbook
     * @param  int  $headerRow  of a workbook, from 1
     * @param  list<array{name: string, hidden: bool}>  $sheets  all that the workbook has, in its order
     */
    private function __construct(public PartKind $kind, public ?DelimitedFormat $delimited = null, public string $sheet = '', public int $headerRow = 1, public array $sheets = []) {}

    public static function delimited(DelimitedFormat $format): self
    {
        return new self(PartKind::Delimited, $format);
    }

    public static function json(bool $isLines): self
    {
        return new self($isLines ? PartKind::JsonLines : PartKind::Json);
    }

    /** @param list<array{name: string, hidden: bool}> $sheets */
    public static function workbook(PartKind $kind, string $sheet, int $headerRow, array $sheets): self
    {
        return new self($kind, null, $sheet, $headerRow, $sheets);
    }

    /** @param FormatDocument $document as toArray() writes it; what was kept before there were kinds is delimited text */
    public static function fromArray(array $document): self
    {
        $kind = PartKind::from($document['kind'] ?? PartKind::Delimited->value);

        return $kind === PartKind::Delimited
            ? self::delimited(DelimitedFormat::fromArray($document))
            : new self($kind, null, $document['sheet'] ?? '', $document['headerRow'] ?? 1, $document['sheets'] ?? []);
    }

    /** @return FormatDocument */
    public function toArray(): array
    {
        return match (true) {
            $this->delimited !== null => ['kind' => $this->kind->value, ...$this->delimited->toArray()],
            $this->kind->isWorkbook() => ['kind' => $this->kind->value, 'sheet' => $this->sheet, 'headerRow' => $this->headerRow, 'sheets' => $this->sheets],
            default => ['kind' => $this->kind->value],
        };
    }

    /**
     * What a person corrected; what is not given stays as it was found.
     *
     * @param  array{delimiter?: string, lineEnds?: string, encoding?: string, header?: bool, skipAbove?: int, skipBelow?: int, sheet?: string, headerRow?: int}  $corrections
     */
    public function with(array $corrections): self
    {
        return $this->delimited !== null
            ? self::delimited($this->delimited->with(
                $corrections['delimiter'] ?? null,
                isset($corrections['lineEnds']) ? LineEnds::from($corrections['lineEnds']) : null,
                isset($corrections['encoding']) ? Encoding::from($corrections['encoding']) : null,
                $corrections['header'] ?? null,
                $corrections['skipAbove'] ?? null,
                $corrections['skipBelow'] ?? null,
            ))
            : new self($this->kind, null, $corrections['sheet'] ?? $this->sheet, $corrections['headerRow'] ?? $this->headerRow, $this->sheets);
    }
}
