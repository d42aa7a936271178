<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use Brick\Math\BigDecimal;
use NineTally\Core\Intake\Archive;
use NineTally\Core\Intake\PartKind;
use NineTally\Core\Intake\UnreadableFile;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Entity\Row;
use OpenSpout\Reader\Common\Creator\ReaderEntityFactory;
use OpenSpout\Reader\ReaderInterface;
use OpenSpout\Reader\SheetInterface;

/**
 * A workbook that is read: the one place of the engine that the package for workbooks is known to, with the two classes beside it that
 * mend what it does to Open Documents. Whatever it throws, or warns of, when a file is damaged leaves as one refusal in our words.
 */
final readonly class Workbook
{
    /** Day 0 of a workbook: a time without a day is kept as a part of it (ECMA-376, part 1, 18.17.4). */
    private const DAY_OF_TIMES = '1899-12-30';

    /** More than any sheet can have (ECMA-376 has 1,048,576): who goes on is read round and round. */
    private const MOST_ROWS = 2_097_152;

    private function __construct(private ReaderInterface $reader, private string $name) {}

    /** @throws UnreadableFile */
    public static function open(string $path, string $name, PartKind $kind): self
    {
        Archive::open($path, $name);
        $reader = $kind === PartKind::Ods ? OpenDocumentSheets::reader() : ReaderEntityFactory::createXLSXReader();
        // Blank rows are rows of the sheet: without them the numbers of those that follow would be wrong.
        $reader->setShouldPreserveEmptyRows(true);
        $workbook = new self($reader, $name);
        $workbook->guarded(static fn() => $reader->open($path));

        return $workbook;
    }

    /**
     * @return list<array{name: string, hidden: bool}>
     *
     * @throws UnreadableFile
     */
    public function sheets(): array
    {
        return $this->guarded(function (): array {
            $sheets = [];
            /** @var SheetInterface $sheet */
            foreach ($this->reader->getSheetIterator() as $sheet) {
                $sheets[] = ['name' => $sheet->getName(), 'hidden' => ! $sheet->isVisible()];
            }

            return $sheets;
        });
    }

    /**
     * @return \Generator<int, list<string>> cells as text, by the number of the row: dates in ISO 8601, of numbers the shortest digits
     *                                       that mean the same double, of formulas what was calculated last
     *
     * @throws UnreadableFile
     */
    public function rows(string $sheet): \Generator
    {
        $rows = $this->guarded(function () use ($sheet): ?\Iterator {
            /** @var SheetInterface $one */
            foreach ($this->reader->getSheetIterator() as $one) {
                if ($one->getName() === $sheet) {
                    $rows = $one->getRowIterator();
                    $rows->rewind();

                    return $rows;
                }
            }

            return null;
        });
        if ($rows === null) {
            throw UnreadableFile::isNoWorkbook($this->name, sprintf('it has no sheet "%s"', $sheet));
        }
        for ($number = 1; ; $number++) {
            $cells = $this->guarded(fn(): ?array => $this->cells($rows, $number > 1));
            if ($cells === null) {
                return;
            }
            yield $number => $number <= self::MOST_ROWS ? $cells : throw UnreadableFile::isNoWorkbook($this->name, 'its sheet has no end');
        }
    }

    public function close(): void
    {
        try {
            $this->guarded(fn() => $this->reader->close());
        } catch (UnreadableFile) {
            // What was read is whole, or was refused already.
        }
    }

    /**
     * @param  \Iterator<mixed>  $rows
     * @return list<string>|null null at the end
     */
    private function cells(\Iterator $rows, bool $goesOn): ?array
    {
        $goesOn && $rows->next();
        $row = $rows->valid() ? $rows->current() : null;

        return $row instanceof Row ? array_map($this->text(...), array_values($row->getCells())) : null;
    }

    /**
     * @template Result
     *
     * @param  \Closure(): Result  $work
     * @return Result
     *
     * @throws UnreadableFile for whatever goes wrong in it
     */
    private function guarded(\Closure $work): mixed
    {
        // Its warnings quote the file.
        set_error_handler(static fn(): bool => true);
        try {
            return $work();
        } catch (\Throwable) {
            throw UnreadableFile::isNoWorkbook($this->name, 'it is damaged, or was not written to its end');
        } finally {
            restore_error_handler();
        }
    }

    private function text(Cell $cell): string
    {
        // A formula that failed is no blank: "#N/A" stands in the cell.
        $value = $cell->getValueEvenIfError();
        $text = match (true) {
            $value instanceof \DateTimeInterface => $this->moment($value),
            is_bool($value) => $value ? 'true' : 'false',
            is_float($value) => $this->number($value),
            is_int($value), is_string($value) => (string) $value,
            default => '',
        };

        return mb_check_encoding($text, 'UTF-8') ? str_replace("\0", '', $text) : mb_scrub($text);
    }

    private function moment(\DateTimeInterface $value): string
    {
        return match (true) {
            $value->format('H:i:s') === '00:00:00' => $value->format('Y-m-d'),
            $value->format('Y-m-d') === self::DAY_OF_TIMES => $value->format('H:i:s'),
            default => $value->format('Y-m-d\TH:i:s'),
        };
    }

    /** The shortest digits that mean the double, without an exponent. */
    private function number(float $value): string
    {
        $written = (string) json_encode($value);

        return stripos($written, 'e') === false
            ? (str_ends_with($written, '.0')
                ? substr($written, 0, -2)
                : $written)
            : (string) BigDecimal::of($written);
    }
}
